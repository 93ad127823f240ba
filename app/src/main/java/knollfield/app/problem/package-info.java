/** How failures reach the caller: RFC 9457 problems with the field named. */
@NullMarked
package knollfield.app.problem;

import org.jspecify.annotations.NullMarked;

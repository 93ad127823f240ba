/** Who may do what: sign-in, roles, people. */
@NullMarked
package knollfield.app.security;

import org.jspecify.annotations.NullMarked;

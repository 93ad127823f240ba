/** Paper: the engine-bay label. */
@NullMarked
package knollfield.app.documents;

import org.jspecify.annotations.NullMarked;

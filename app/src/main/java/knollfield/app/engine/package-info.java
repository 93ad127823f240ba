/** The engine families on file, each in versions. */
@NullMarked
package knollfield.app.engine;

import org.jspecify.annotations.NullMarked;

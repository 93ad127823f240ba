/** The file everything is kept in: opened only when it is whole and ours, on the disk before a change is answered, backed up. */
@NullMarked
package knollfield.app.data;

import org.jspecify.annotations.NullMarked;

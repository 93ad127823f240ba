/** What needs a decision, worst first, and one vehicle's dossier. */
@NullMarked
package knollfield.app.desk;

import org.jspecify.annotations.NullMarked;

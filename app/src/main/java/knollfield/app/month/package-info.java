/** What a month came to: jobs, hours, money, and what was said no to. */
@NullMarked
package knollfield.app.month;

import org.jspecify.annotations.NullMarked;

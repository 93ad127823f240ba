/** The invented island of Skerrow, dated from the day it starts. */
@NullMarked
package knollfield.app.demo;

import org.jspecify.annotations.NullMarked;

/**
 * What goes in with it? Required lines and labour as a union of access steps (rules.md section 5).
 */
@NullMarked
package knollfield.core.bundle;

import org.jspecify.annotations.NullMarked;

/** Planning instances in their plain form, the product's planner on them, and what it is compared with. */
package knollfield.bench.planner;

/**
 * A simulated island whose drives fail by laws the workshop does not know, run under many ways of deciding. What is assumed
 * stands in docs/proving-ground.md.
 */
package knollfield.bench.proving;

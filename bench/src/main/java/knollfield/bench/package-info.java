/** How fast core is, measured; nothing here is shipped or tested for time. */
package knollfield.bench;

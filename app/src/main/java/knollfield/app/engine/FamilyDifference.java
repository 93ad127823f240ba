package knollfield.app.engine;

/**
 * One difference between two versions of a book.
 *
 * @param pointer where, with codes in place of indices
 * @param before empty where it was not there
 * @param after empty where it is no longer there
 */
record FamilyDifference(String pointer, String before, String after) {}

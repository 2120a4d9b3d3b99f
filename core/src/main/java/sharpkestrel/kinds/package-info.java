/**
 * The kinds of result that steps make, in one open list: how each is read, written, kept, described, offered as an input and
 * digested.
 */
package sharpkestrel.kinds;

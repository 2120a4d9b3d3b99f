/** CQL2 text (OGC 21-065r2) and arithmetic over columns: parser, checker, evaluator. */
package sharpkestrel.expr;

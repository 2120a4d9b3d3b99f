package sharpkestrel.raster;

/** Attached where a file or a person says what bands stand for, if only that it is nothing in particular: nothing is guessed then. */
public record RolesSaid() {}

package sharpkestrel.demo.things;

/**
 * Where vehicles are parked: a field of bays, or one place where length and width are nought.
 *
 * @param full how many of its places are taken on a day, 0 to 1
 */
record Bays(Frame frame, double length, double width, double full) {}

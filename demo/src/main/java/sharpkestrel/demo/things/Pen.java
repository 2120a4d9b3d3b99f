package sharpkestrel.demo.things;

/** A ring of floats with a net in it, for fish. */
public record Pen(double east, double north, double radius) {}

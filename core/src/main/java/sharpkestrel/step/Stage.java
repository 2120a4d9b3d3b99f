package sharpkestrel.step;

/** The seven stages of the work, in order. */
public enum Stage {
  GATHER("Gather"),
  PLACE("Place"),
  SHARPEN("Sharpen"),
  SEGMENT("Segment"),
  EXTRACT("Extract"),
  CHECK("Check"),
  DELIVER("Deliver");

  private final String title;

  Stage(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }
}

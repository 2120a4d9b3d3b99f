package sharpkestrel.raster;

/**
 * Who asks for pixels and how urgently.
 *
 * @param urgent true for what somebody is looking at
 * @param cancellation looked at between tiles
 */
public record Request(boolean urgent, Cancellation cancellation) {

  public static final Request BACKGROUND = new Request(false, Cancellation.NEVER);

  public static Request of(Cancellation cancellation) {
    return new Request(false, cancellation);
  }
}

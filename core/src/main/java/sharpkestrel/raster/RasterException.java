package sharpkestrel.raster;

/** Pixels that cannot be had; the message says what, where and what to do. */
public class RasterException extends RuntimeException {

  private static final long serialVersionUID = 1L;

  public RasterException(String message) {
    super(message);
  }

  public RasterException(String message, Throwable cause) {
    super(message, cause);
  }
}

package sharpkestrel.geo;

/** A coordinate reference system that is missing or cannot be used. */
public final class CrsException extends sharpkestrel.raster.RasterException {

  private static final long serialVersionUID = 1L;

  public CrsException(String message) {
    super(message);
  }

  public CrsException(String message, Throwable cause) {
    super(message, cause);
  }
}

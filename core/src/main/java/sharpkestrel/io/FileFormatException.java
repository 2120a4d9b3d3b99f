package sharpkestrel.io;

import sharpkestrel.raster.RasterException;

/** A file that cannot be read as what it claims to be; the message says which file, what is wrong, what to do. */
public final class FileFormatException extends RasterException {

  private static final long serialVersionUID = 1L;

  public FileFormatException(String message) {
    super(message);
  }

  public FileFormatException(String message, Throwable cause) {
    super(message, cause);
  }
}

package sharpkestrel.raster;

/** How a sample is stored. Computation is in float; these say what may be written without loss. */
public enum SampleType {
  UINT8(1, 0, 255),
  UINT16(2, 0, 65_535),
  INT16(2, -32_768, 32_767),
  UINT32(4, 0, 4_294_967_295.0),
  INT32(4, -2_147_483_648.0, 2_147_483_647),
  FLOAT32(4, -Float.MAX_VALUE, Float.MAX_VALUE);

  private final int bytes;
  private final double min;
  private final double max;

  SampleType(int bytes, double min, double max) {
    this.bytes = bytes;
    this.min = min;
    this.max = max;
  }

  public int bytes() {
    return bytes;
  }

  public double min() {
    return min;
  }

  public double max() {
    return max;
  }

  public boolean isWhole() {
    return this != FLOAT32;
  }

  public String label() {
    return switch (this) {
      case UINT8 -> "unsigned 8 bit";
      case UINT16 -> "unsigned 16 bit";
      case INT16 -> "signed 16 bit";
      case UINT32 -> "unsigned 32 bit";
      case INT32 -> "signed 32 bit";
      case FLOAT32 -> "float 32 bit";
    };
  }
}

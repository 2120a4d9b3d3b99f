package sharpkestrel.demo.light;

/**
 * What a face of a thing is made of.
 *
 * @param rho reflectance by band
 * @param second reflectance by band of what the pattern lays over it
 * @param share how much of the second, 0 to 1; for lanes and stripes their spacing in metres
 * @param direction of the pattern, radians anticlockwise from east
 */
public record Surface(
    Material material,
    float[] rho,
    Pattern pattern,
    float[] second,
    double share,
    double cos,
    double sin) {

  public static Surface of(Material material, float[] rho) {
    return new Surface(material, rho, Pattern.PLAIN, rho, 0, 1, 0);
  }

  public static Surface of(Material material) {
    return of(material, material.spectrum());
  }

  public Surface with(Pattern laid, float[] over, double share, double direction) {
    return new Surface(material, rho, laid, over, share, Math.cos(direction), Math.sin(direction));
  }
}

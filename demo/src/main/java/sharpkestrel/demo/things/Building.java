package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.light.Material;

/**
 * A building: its parts under roofs run into each other.
 *
 * @param roof material of its main roof
 * @param shape of its plan
 * @param year in which it was built
 * @param base ground at its middle, metres above the geoid
 */
public record Building(
    int id,
    Use use,
    Material roof,
    Shape shape,
    int year,
    double east,
    double north,
    double base,
    List<Solid> parts) {

  /** What it is for. */
  public enum Use {
    DWELLING,
    SHOP,
    WAREHOUSE,
    WORKS,
    CHURCH,
    TOWER,
    BARN,
    SHED
  }

  /** Its plan. */
  public enum Shape {
    OBLONG,
    ELL,
    TEE,
    YOU,
    COURT,
    CROSS,
    OUTSHUT,
    DOUBLE,
    ROW,
    OCTAGON
  }

  /** Metres from the ground at its middle to its highest point. */
  public double height() {
    return parts.stream().mapToDouble(part -> part.top).max().orElse(base) - base;
  }
}

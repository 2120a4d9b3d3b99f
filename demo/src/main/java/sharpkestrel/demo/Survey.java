package sharpkestrel.demo;

import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Where the files of a survey lie. The folder is named after what was asked for, so that another seed, size or scenario
 * is another folder, and the last file to be written marks it as whole.
 */
public record Survey(Path folder) {

  static final int VERSION = 4;

  /**
   * What is asked for.
   *
   * @param size panchromatic pixels along one side
   * @param bias pixels by which the delivered RPCs are off; 0 for exact ones
   * @param rasters whether the truth holds radiometry and cover too, which take as long as the scenes
   */
  public record Order(long seed, int size, Scenario scenario, double bias, boolean rasters) {

    public Order(long seed, int size) {
      this(seed, size, Scenario.WHOLE, 0, false);
    }

    String folder() {
      return "fenwrack-sound-" + seed + "-" + size
          + (scenario == Scenario.WHOLE ? "" : "-" + scenario.label())
          + (bias == 0 ? "" : "-biased-" + (bias == Math.rint(bias) ? (long) bias : bias))
          + "-v" + VERSION;
    }
  }

  public static Survey in(Path parent, Order order) {
    return new Survey(parent.resolve(order.folder()));
  }

  public Path item() {
    return item("scene-one");
  }

  /** The STAC item of {@code scene-one} or {@code scene-two}. */
  public Path item(String scene) {
    return folder.resolve(scene + "/" + scene + ".json");
  }

  public Path photo() {
    return folder.resolve("photo/air-photo.tif");
  }

  public Path heights() {
    return folder.resolve("heights/terrain.tif");
  }

  public Path surface() {
    return folder.resolve("heights/surface.tif");
  }

  public Path coarseHeights() {
    return folder.resolve("heights/coarse-30m.tif");
  }

  public Path parishes() {
    return folder.resolve("council/parishes.gpkg");
  }

  public Path register() {
    return folder.resolve("council/building-register.gpkg");
  }

  /** A file of the truth of {@code scene-one} or {@code scene-two}. */
  public Path truth(String scene, String file) {
    return folder.resolve("truth/" + scene + "/" + file);
  }

  public Path roofsInOrtho() {
    return truth("scene-one", "roofs-terrain-ortho.gpkg");
  }

  public Path roofsInRaw() {
    return truth("scene-one", "roofs-raw.gpkg");
  }

  public Path checkPoints() {
    return truth("scene-one", "check-points.json");
  }

  public Path marker() {
    return folder.resolve("survey.json");
  }

  public boolean isComplete() {
    return Files.isRegularFile(marker());
  }
}

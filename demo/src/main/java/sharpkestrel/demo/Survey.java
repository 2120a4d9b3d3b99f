package sharpkestrel.demo;

import java.nio.file.Files;
import java.nio.file.Path;
import sharpkestrel.io.Json;

/**
 * Where the files of a survey lie. The folder is named after what was asked for, so that another seed, size or scenario
 * is another folder.
 */
public record Survey(Path folder) {

  static final int VERSION = 5;

  /** Of the regions inland, and of the archipelago under other circumstances. */
  static final int VERSION_OF_OTHERS = 1;

  /** How much of a survey there is; each holds what stands before it. */
  public enum Holds {
    /** Scene one with its truth, and the terrain's heights: enough to work on. */
    FIRST_SCENE,
    /** Scene two, the air photo, the other heights and the council's files. */
    ALL_FILES,
    /** Radiometry without noise and cover maps, which take as long as the scenes. */
    TRUTH_RASTERS
  }

  /**
   * What is asked for.
   *
   * @param size panchromatic pixels along one side
   * @param bias pixels by which the delivered RPCs are off; 0 for exact ones
   */
  public record Order(
      long seed, int size, Scenario scenario, double bias, Holds holds, Scheme scheme) {

    /** Of the archipelago as it always was. */
    public Order(long seed, int size, Scenario scenario, double bias, Holds holds) {
      this(seed, size, scenario, bias, holds, Scheme.PLAIN);
    }

    public Order(long seed, int size) {
      this(seed, size, Scenario.WHOLE, 0, Holds.FIRST_SCENE);
    }

    public Order holding(Holds wanted) {
      return new Order(seed, size, scenario, bias, wanted, scheme);
    }

    /** Seed, size and what else sets it apart, as its folder is named: {@code 101-4096-harbour}. */
    public String label() {
      return seed + "-" + size
          + (scenario == Scenario.WHOLE ? "" : "-" + scenario.label())
          + scheme.suffix()
          + (bias == 0 ? "" : "-biased-" + (bias == Math.rint(bias) ? (long) bias : bias));
    }
  }

  public static Survey in(Path parent, Order order) {
    int version = order.scheme().equals(Scheme.PLAIN) ? VERSION : VERSION_OF_OTHERS;
    return new Survey(parent.resolve(
        order.scheme().region().site().slug() + "-" + order.label() + "-v" + version));
  }

  public Path item() {
    return item("scene-one");
  }

  /** The STAC item of {@code scene-one} or {@code scene-two}. */
  public Path item(String scene) {
    return folder.resolve(scene + "/" + scene + ".json");
  }

  /** A scene that a camera in an aircraft took, as it is delivered; such surveys have no items. */
  public Path ortho(String scene) {
    return folder.resolve(scene + "/" + scene + ".tif");
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

  /** Tells what is there; written when that is whole. */
  Path marker() {
    return folder.resolve("survey.json");
  }

  /** Whether so much of it is there, whole. */
  public boolean has(Holds wanted) {
    return Files.isRegularFile(marker())
        && Holds.valueOf(Json.read(marker()).path("holds").asText()).compareTo(wanted) >= 0;
  }
}

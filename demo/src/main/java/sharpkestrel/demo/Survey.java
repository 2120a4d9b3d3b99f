package sharpkestrel.demo;

import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Where the files of a survey lie. The folder is named after seed and size, so that another seed or size is another
 * folder, and the last file to be written marks it as whole.
 */
public record Survey(Path folder) {

  static final int VERSION = 3;

  public static Survey in(Path parent, long seed, int size) {
    return new Survey(parent.resolve("fenwrack-sound-" + seed + "-" + size + "-v" + VERSION));
  }

  public Path item() {
    return folder.resolve("scene-one/scene-one.json");
  }

  public Path heights() {
    return folder.resolve("heights/terrain.tif");
  }

  public Path roofsInOrtho() {
    return folder.resolve("truth/roofs-terrain-ortho.gpkg");
  }

  public Path roofsInRaw() {
    return folder.resolve("truth/roofs-raw.gpkg");
  }

  public Path checkPoints() {
    return folder.resolve("truth/check-points.json");
  }

  public Path marker() {
    return folder.resolve("survey.json");
  }

  public boolean isComplete() {
    return Files.isRegularFile(marker());
  }
}

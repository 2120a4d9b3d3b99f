package sharpkestrel.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import sharpkestrel.raster.Affine;

/** The affine of a raster as six numbers, one a line: pixel width, two rotations, pixel height, centre of the first pixel. */
final class WorldFile {

  private WorldFile() {}

  /** Names under which one may lie beside a raster. */
  static List<Path> candidates(Path raster) {
    String name = raster.getFileName().toString();
    int dot = name.lastIndexOf('.');
    String stem = name.substring(0, dot + 1);
    String ending = name.substring(dot + 1);
    String brief = "" + ending.charAt(0) + ending.charAt(ending.length() - 1) + 'w';
    List<Path> all = new ArrayList<>();
    for (String each : List.of(brief, ending + "w", "wld")) {
      all.add(raster.resolveSibling(stem + each));
      all.add(raster.resolveSibling(stem + each.toUpperCase(Locale.ROOT)));
    }
    return all;
  }

  /**
   * @throws FileFormatException where there is one that does not hold six numbers
   */
  static Optional<Affine> beside(Path raster) {
    for (Path candidate : candidates(raster)) {
      if (Files.isRegularFile(candidate)) {
        return Optional.of(read(candidate));
      }
    }
    return Optional.empty();
  }

  private static Affine read(Path file) {
    try {
      String[] numbers = Files.readString(file).strip().split("\\s+");
      if (numbers.length < 6) {
        throw new FileFormatException(file + " is a world file with " + numbers.length
            + " numbers, not 6. Correct it, or take it away.");
      }
      double[] n = new double[6];
      for (int i = 0; i < 6; i++) {
        n[i] = Double.parseDouble(numbers[i].replace(',', '.'));
      }
      Affine centres = new Affine(n[0], n[2], n[4], n[1], n[3], n[5]);
      if (!(Math.abs(n[0] * n[3] - n[1] * n[2]) > 0)) {
        throw new FileFormatException(
            file + " is a world file that gives pixels no area. Correct it, or take it away.");
      }
      return centres.shifted(-0.5, -0.5);
    } catch (NumberFormatException | IOException unreadable) {
      throw new FileFormatException(
          file + " is no world file of six numbers: " + unreadable.getMessage()
              + ". Correct it, or take it away.",
          unreadable);
    }
  }
}

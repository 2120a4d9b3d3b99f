package sharpkestrel.io;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRoles;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Reattached;
import sharpkestrel.raster.RolesSaid;

/**
 * Opens a raster file by what it is: GeoTIFF, PNG, JPEG, JPEG 2000, or a virtual raster of such. What lies beside it counts:
 * world file, RPC text, auxiliary XML, reduced copies and masks, and what a person told of it. Where no band has a role,
 * roles are guessed and marked so.
 */
public final class RasterFiles {

  /** What is seen of a file that has a table of colours. */
  public enum Palette {
    /** Its numbers, as classes. */
    CLASSES,
    /** Its colours, as three bands. */
    COLOURS
  }

  private static final List<String> TIFF = List.of(".tif", ".tiff");
  private static final List<String> PICTURES = List.of(".png", ".jpg", ".jpeg", ".jp2", ".j2k");
  private static final String VIRTUAL = ".vrt";

  /** How names of raster files end. */
  public static final List<String> ENDINGS =
      Stream.of(TIFF, PICTURES, List.of(VIRTUAL)).flatMap(List::stream).toList();

  private RasterFiles() {}

  /** Whether a file's name ends as those of rasters do. */
  public static boolean isNamed(Path path) {
    return endsWith(path, ENDINGS);
  }

  /**
   * @throws FileFormatException where the file is missing, damaged, or of a kind that is not read
   */
  public static Raster open(Path path) {
    return open(path, 1, Optional.empty());
  }

  /**
   * @param image which of the images in a TIFF file, from 1
   * @param palette what is seen of a table of colours; where it is left open, classes of a TIFF file, colours of a picture
   */
  public static Raster open(Path path, int image, Optional<Palette> palette) {
    Raster plain = openPlain(path, image, palette);
    Raster told = Descriptions.read(path).describe(plain, false);
    List<Band> distinct = BandRoles.once(told.bands());
    boolean said = told.attachments().get(RolesSaid.class).isPresent();
    return new Renamed(told, said ? distinct : BandRoles.guessedByOrder(distinct));
  }

  /** The raster as it is without what a person told of it, and without guesses. */
  public static Raster openPlain(Path path) {
    return openPlain(path, 1, Optional.empty());
  }

  private static Raster openPlain(Path path, int image, Optional<Palette> palette) {
    Raster raster;
    Description own = Description.NONE;
    if (endsWith(path, TIFF)) {
      GeoTiff tiff = GeoTiff.open(path, image);
      own = tiff.described();
      raster = palette.equals(Optional.of(Palette.COLOURS)) ? PaletteColours.of(tiff) : tiff;
    } else if (endsWith(path, PICTURES)) {
      raster = PictureFile.open(path, palette.orElse(Palette.COLOURS));
    } else if (endsWith(path, List.of(VIRTUAL))) {
      raster = VirtualRaster.open(path);
    } else {
      throw new FileFormatException(
          path
              + " is not a raster this reads. Rasters are .tif, .tiff, .png, .jpg, .jpeg, .jp2, .j2k or .vrt files.");
    }
    return beside(path, raster, own);
  }

  private static boolean endsWith(Path path, List<String> endings) {
    String name = path.getFileName().toString().toLowerCase(Locale.ROOT);
    return endings.stream().anyMatch(name::endsWith);
  }

  /** What files beside it tell, which does not go against what it says itself, save the auxiliary XML, which was made to. */
  private static Raster beside(Path path, Raster raster, Description own) {
    Description told = own;
    Path auxiliary = AuxiliaryXml.beside(path);
    if (Files.isRegularFile(auxiliary)) {
      told = AuxiliaryXml.read(auxiliary).over(own);
    }
    if (raster.grid().affine().equals(Affine.IDENTITY) && told.affine().isEmpty()) {
      Optional<Affine> world = WorldFile.beside(path);
      told = told.over(Description.NONE.withAffine(world));
    }
    Raster described = told.describe(raster, true);
    for (Path rpc : rpcTexts(path)) {
      if (described.attachments().get(Rpc.class).isEmpty() && Files.isRegularFile(rpc)) {
        return new Reattached(
            described, described.attachments().with(Rpc.class, RpcText.read(rpc)));
      }
    }
    return described;
  }

  private static List<Path> rpcTexts(Path path) {
    String stem = path.getFileName().toString().replaceFirst("\\.[^.]+$", "");
    return List.of(path.resolveSibling(stem + "_RPC.TXT"), path.resolveSibling(stem + "_rpc.txt"));
  }

  /** Every file that counts when a raster is opened, there or not: another result follows when one of them changes. */
  public static List<Path> readWith(Path path) {
    List<Path> all = new ArrayList<>(List.of(
        path,
        AuxiliaryXml.beside(path),
        TiffPyramid.beside(path, ".ovr"),
        TiffPyramid.beside(path, ".msk"),
        Descriptions.beside(path)));
    all.addAll(WorldFile.candidates(path));
    all.addAll(rpcTexts(path));
    if (endsWith(path, List.of(VIRTUAL)) && Files.isRegularFile(path)) {
      try {
        VirtualRaster.sources(path).forEach(source -> all.addAll(readWith(source)));
      } catch (IOException | FileFormatException unreadable) {
        // whoever opens it is told
        return all;
      }
    }
    return all;
  }
}

package sharpkestrel.io;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import sharpkestrel.geo.Rpc;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Reattached;

/** Opens a raster file by what it is: GeoTIFF, or PNG and JPEG with a world file; an RPC text beside it is attached. */
public final class RasterFiles {

  private RasterFiles() {}

  /**
   * @throws FileFormatException where the file is missing, damaged, or of a kind that is not read
   */
  public static Raster open(Path path) {
    String name = path.getFileName().toString().toLowerCase(Locale.ROOT);
    if (name.endsWith(".png") || name.endsWith(".jpg") || name.endsWith(".jpeg")) {
      return PictureFile.open(path);
    }
    if (!name.endsWith(".tif") && !name.endsWith(".tiff")) {
      throw new FileFormatException(path
          + " is not a raster this reads. Rasters are .tif, .tiff, .png, .jpg or .jpeg files.");
    }
    GeoTiff tiff = GeoTiff.open(path);
    String stem = path.getFileName().toString().replaceFirst("\\.[^.]+$", "");
    for (String ending : List.of("_RPC.TXT", "_rpc.txt")) {
      Path beside = path.resolveSibling(stem + ending);
      if (tiff.attachments().get(Rpc.class).isEmpty() && Files.isRegularFile(beside)) {
        return new Reattached(tiff, tiff.attachments().with(Rpc.class, RpcText.read(beside)));
      }
    }
    return tiff;
  }
}

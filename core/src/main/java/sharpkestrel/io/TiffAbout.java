package sharpkestrel.io;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.ControlPoints;
import sharpkestrel.geo.Placement;
import sharpkestrel.geo.Rpc;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.geo.VerticalDatum;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Remarks;
import sharpkestrel.raster.RolesSaid;
import sharpkestrel.raster.SampleType;

/**
 * What a directory says of its image beside its layout: grid, bands, no-data, sensor model, how it was taken.
 *
 * @param noData the stored number that means none; NaN where none is set aside
 * @param described scale and offset of its numbers, where it tells them
 */
record TiffAbout(
    Grid grid, List<Band> bands, double noData, Attachments attachments, Description described) {

  private static final int RGB = 2;
  private static final int PALETTE = 3;
  private static final int CMYK = 5;
  private static final int YCBCR = 6;

  static TiffAbout of(TiffFile file, TiffPyramid pyramid) {
    TiffDirectory directory = pyramid.directory();
    TiffImage full = pyramid.full();
    int photometric = directory.integer(TiffTags.PHOTOMETRIC, 1);
    if (photometric == YCBCR && !full.packing.toString().equals("jpeg") || photometric == CMYK) {
      throw file.unsupported(
          "its colours are " + (photometric == CMYK ? "those of a printer" : "luma and chroma")
              + ", which are not read",
          "Write the file again with red, green and blue.");
    }
    GeoKeys.Reference reference = GeoKeys.read(file, directory);
    Grid grid = new Grid(full.width, full.height, reference.affine(), reference.crs());
    ItemsXml items = ItemsXml.parse(directory.text(TiffTags.ITEMS));
    double noData = noData(directory.text(TiffTags.NO_DATA), full.format.type());
    List<Band> bands = bands(pyramid, items, photometric, noData);
    Attachments all = attachments(file, directory, reference, items, bands)
        .with(FileLayout.class, pyramid.layout(file.isBig()));
    return new TiffAbout(
        grid, bands, noData, remarks(all, pyramid, photometric), Description.ofItems(items, bands));
  }

  private static Attachments attachments(
      TiffFile file,
      TiffDirectory directory,
      GeoKeys.Reference reference,
      ItemsXml items,
      List<Band> bands) {
    Attachments all = Attachments.NONE;
    double[] rpc = directory.doubles(TiffTags.RPC);
    if (rpc.length >= 92) {
      all = all.with(Rpc.class, model(file, rpc));
    }
    if (!reference.points().points().isEmpty()) {
      all = all.with(ControlPoints.class, reference.points());
    }
    all = all.with(Acquisition.class, AcquisitionItems.read(items, bands))
        .with(Placement.class, PlacementItems.read(items))
        .with(SeamVisibility.class, SeamItems.read(items));
    boolean said = IntStream.range(0, bands.size())
        .anyMatch(b ->
            items.get(b, "role").isPresent() && items.get(b, "role_guessed").isEmpty());
    if (said) {
      all = all.with(RolesSaid.class, new RolesSaid());
    }
    return reference.vertical() == VerticalDatum.UNKNOWN
        ? all
        : all.with(VerticalDatum.class, reference.vertical());
  }

  private static Rpc model(TiffFile file, double[] tag) {
    try {
      return Rpc.ofTag(tag);
    } catch (IllegalArgumentException senseless) {
      throw file.broken("its sensor model makes no sense: " + senseless.getMessage());
    }
  }

  /** What a type cannot hold marks nothing. */
  static double noData(String text, SampleType type) {
    double number;
    try {
      number = text.isBlank() ? Double.NaN : Double.parseDouble(text.strip());
    } catch (NumberFormatException unreadable) {
      return Double.NaN;
    }
    if (!type.isWhole()) {
      float stored = (float) number;
      return Float.isFinite(stored) ? stored : Double.NaN;
    }
    boolean fits = number == Math.rint(number) && number >= type.min() && number <= type.max();
    return fits ? number : Double.NaN;
  }

  private static List<Band> bands(
      TiffPyramid pyramid, ItemsXml items, int photometric, double noData) {
    List<Band> list = new ArrayList<>();
    BandRole[] colours = {BandRole.RED, BandRole.GREEN, BandRole.BLUE};
    boolean coloured = photometric == RGB || photometric == YCBCR;
    for (int b = 0; b < pyramid.full().samples; b++) {
      if (b == pyramid.transparency()) {
        continue;
      }
      String name = items.get(b, "DESCRIPTION").orElse("");
      BandRole role =
          items.get(b, "role").map(BandRole::guess).orElseGet(() -> BandRole.inText(name));
      if (role == BandRole.OTHER && items.get(b, "role").isEmpty()) {
        role = items.number(b, "wavelength").stream()
            .mapToObj(BandRole::ofWavelength)
            .findFirst()
            .orElse(coloured && b < 3 ? colours[b] : BandRole.OTHER);
      }
      String called =
          !name.isEmpty() ? name : role == BandRole.OTHER ? "band " + (b + 1) : role.label();
      list.add(new Band(
          called,
          role,
          items.get(b, "UNITTYPE").orElse(""),
          pyramid.full().format.type(),
          noData,
          items.get(b, "role_guessed").isPresent()));
    }
    return list;
  }

  private static Attachments remarks(Attachments all, TiffPyramid pyramid, int photometric) {
    Attachments with = all;
    TiffSamples format = pyramid.full().format;
    if (format.isFloat() && format.bits() == 64) {
      with = Remarks.add(
          with, "Its numbers have 64 bits and are read with 32: seven digits of them are kept.");
    }
    if (pyramid.images() > 1) {
      with = Remarks.add(
          with,
          "It holds " + pyramid.images()
              + " images; this is one of them. Open another by its number"
              + " (step open, setting image).");
    }
    if (photometric == PALETTE) {
      with = Remarks.add(
          with,
          "It has a table of colours; its numbers are read as classes. To see its colours as bands, open it so (step open,"
              + " setting palette).");
    }
    if (pyramid.transparency() >= 0) {
      with = Remarks.add(
          with,
          "Its band " + (pyramid.transparency() + 1)
              + " is said to be opacity: pixels where it is 0 are without data, and it is no band here.");
    }
    return with;
  }
}

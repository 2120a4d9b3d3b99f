package sharpkestrel.gather;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Rpc;
import sharpkestrel.io.RasterFiles;
import sharpkestrel.io.RpcText;
import sharpkestrel.io.StacItem;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.RasterException;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Stage;
import sharpkestrel.step.Step;
import sharpkestrel.step.StepInfo;

/**
 * Puts the part files of a delivery together. Parts are found through the STAC item of the delivery, or by row and
 * column in their names ({@code NAME-R1C2.tif}), or, where names tell neither, by where each says it lies
 * ({@code NAME-anything.tif}); the RPC text {@code NAME_RPC.TXT} describes the whole image.
 */
@StepInfo(
    id = "assemble",
    stage = Stage.GATHER,
    title = "Assemble",
    does =
        "Puts the part files of a delivery together into one scene, with band roles, acquisition and sensor model"
            + " attached. Says which parts are missing or doubled.")
public record Assemble(
    @Setting(
        label = "Delivery",
        does =
            "A STAC item (.json), or a folder with part files named NAME-R1C1.tif and so on, or NAME-anything.tif that say where they lie.",
        reads = DeliverySources.class)
    Path delivery,

    @Setting(
        label = "Image",
        does = "Which image of the delivery: the NAME that its part files begin with, e.g. pan.")
    String image)
    implements Step<Raster> {

  private static final Pattern PART =
      Pattern.compile("(.+?)[-_]R(\\d{1,3})C(\\d{1,3})", Pattern.CASE_INSENSITIVE);

  public Assemble {
    if (image.isBlank()) {
      throw new IllegalArgumentException("Image must name one of the delivery's images, e.g. pan.");
    }
  }

  private record Part(
      String image, int row, int column, Path path, List<StacItem.BandNote> bands) {}

  @Override
  public Raster run(Job job) {
    boolean item = Files.isRegularFile(delivery);
    if (!item && !Files.isDirectory(delivery)) {
      throw new RasterException(
          "The delivery " + delivery + " is not there. Give its folder or its STAC item.");
    }
    Attachments attachments = Attachments.NONE;
    List<Part> parts;
    if (item) {
      StacItem stac = StacItem.read(delivery);
      attachments = attachments.with(Acquisition.class, stac.acquisition());
      parts = stac.assets().stream()
          .flatMap(asset -> part(asset.key(), asset.path(), asset.bands()).stream())
          .toList();
    } else {
      parts = partsInFolder();
    }
    List<Part> chosen =
        parts.stream().filter(part -> part.image().equalsIgnoreCase(image)).toList();
    List<Path> placed = chosen.isEmpty() && !item ? placedParts() : List.of();
    if (chosen.isEmpty() && placed.isEmpty()) {
      throw new RasterException("The delivery "
          + delivery
          + " has no image '"
          + image
          + "'. It has: "
          + parts.stream().map(Part::image).distinct().sorted().toList()
          + ".");
    }
    Path folder = (chosen.isEmpty() ? placed.getFirst() : chosen.getFirst().path())
        .toAbsolutePath()
        .getParent();
    Path rpc = folder.resolve(image + "_RPC.TXT");
    if (Files.isRegularFile(rpc)) {
      attachments = attachments.with(Rpc.class, RpcText.read(rpc));
    } else if (placed.isEmpty()) {
      job.warn(
          "No sensor model lies beside the parts (" + rpc + "): the scene cannot be placed by it.");
    }
    return placed.isEmpty()
        ? assemble(chosen, attachments, job)
        : PlacedParts.of(placed, attachments, job);
  }

  /** Files of the image whose names tell no row and column. */
  private List<Path> placedParts() {
    String wanted = image.toLowerCase(Locale.ROOT);
    return rasterFiles().stream()
        .filter(f -> f.getFileName().toString().toLowerCase(Locale.ROOT).startsWith(wanted))
        .filter(f -> part(stem(f), f, List.of()).isEmpty())
        .toList();
  }

  private Raster assemble(List<Part> chosen, Attachments attachments, Job job) {
    Map<Integer, Map<Integer, Raster>> rows = new TreeMap<>();
    List<Band> bands = null;
    for (Part part : chosen) {
      if (!Files.isRegularFile(part.path())) {
        job.warn("Part R" + part.row() + "C" + part.column() + " is missing (" + part.path()
            + "): its area is left without data.");
        continue;
      }
      Raster tiff = RasterFiles.open(part.path());
      if (bands == null) {
        bands = named(tiff.bands(), part.bands());
      } else if (bands.size() != tiff.bands().size()) {
        throw new RasterException(part.path()
            + " has "
            + tiff.bands().size()
            + " bands, the parts before it "
            + bands.size()
            + ". Parts of one image have the same bands; check the image name.");
      }
      Raster before =
          rows.computeIfAbsent(part.row(), r -> new TreeMap<>()).put(part.column(), tiff);
      if (before != null) {
        rows.get(part.row()).put(part.column(), before);
        job.warn("Part R" + part.row() + "C" + part.column() + " is there twice; " + part.path()
            + " is left out.");
      }
    }
    if (bands == null) {
      throw new RasterException(
          "None of the parts of '" + image + "' is there in " + delivery + ".");
    }
    return PartedRaster.of(rows, bands, attachments, job);
  }

  private static List<Band> named(List<Band> bands, List<StacItem.BandNote> notes) {
    if (notes.size() != bands.size()) {
      return bands;
    }
    List<Band> named = new ArrayList<>();
    for (int b = 0; b < bands.size(); b++) {
      named.add(bands.get(b).withName(notes.get(b).name()).withRole(notes.get(b).role()));
    }
    return named;
  }

  private List<Part> partsInFolder() {
    return rasterFiles().stream()
        .flatMap(f -> part(stem(f), f, List.of()).stream())
        .toList();
  }

  private static String stem(Path file) {
    return file.getFileName().toString().replaceFirst("\\.[^.]+$", "");
  }

  private List<Path> rasterFiles() {
    return rasterFiles(delivery);
  }

  static List<Path> rasterFiles(Path delivery) {
    try (Stream<Path> files = Files.list(delivery)) {
      return files
          .filter(f -> f.getFileName().toString().toLowerCase(Locale.ROOT).matches(".*\\.tiff?"))
          .sorted()
          .toList();
    } catch (IOException failed) {
      throw new RasterException(delivery + " cannot be listed: " + failed.getMessage(), failed);
    }
  }

  private static java.util.Optional<Part> part(
      String name, Path path, List<StacItem.BandNote> bands) {
    Matcher matcher = PART.matcher(name);
    return matcher.matches()
        ? java.util.Optional.of(new Part(
            matcher.group(1),
            Integer.parseInt(matcher.group(2)),
            Integer.parseInt(matcher.group(3)),
            path,
            bands))
        : java.util.Optional.empty();
  }
}

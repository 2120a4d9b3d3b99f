package sharpkestrel.gather;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
 * column in their names ({@code NAME-R1C2.tif}, or as a pattern says), or, where names tell neither, by where each says it lies
 * ({@code NAME-anything.tif}); the RPC text {@code NAME_RPC.TXT} describes the whole image.
 */
@StepInfo(
    id = "assemble",
    stage = Stage.GATHER,
    title = "Assemble",
    makes = "{}, raw",
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
    String image,

    @Setting(
        label = "Names",
        does =
            "How the names of part files are made up, without what follows the last dot: {image}, {row} and {column} stand for"
                + " the image and numbers, * for anything, e.g. tile_{row}_{column}_{image}. auto is {image}-R{row}C{column}.",
        initial = "auto")
    Optional<String> pattern)
    implements Step<Raster> {

  private static final Pattern PART = Pattern.compile(
      "(?<image>.+?)[-_]R(?<row>\\d{1,3})C(?<column>\\d{1,3})", Pattern.CASE_INSENSITIVE);

  private static final Pattern PLACE = Pattern.compile("\\{(image|row|column)\\}|\\*");

  public Assemble {
    pattern.ifPresent(Assemble::compiled);
    if (image.isBlank()) {
      throw new IllegalArgumentException("Image must name one of the delivery's images, e.g. pan.");
    }
  }

  /** Parts by the names that deliveries usually have. */
  public Assemble(Path delivery, String image) {
    this(delivery, image, Optional.empty());
  }

  /**
   * The images whose parts lie in a folder or are listed by a STAC item.
   *
   * @throws RasterException where the folder cannot be listed or the item cannot be read
   */
  public static List<String> imagesIn(Path delivery) {
    Stream<String> names = Files.isDirectory(delivery)
        ? rasterFiles(delivery).stream().map(Assemble::stem)
        : StacItem.read(delivery).assets().stream().map(StacItem.Asset::key);
    return names
        .map(PART::matcher)
        .filter(Matcher::matches)
        .map(matcher -> matcher.group("image"))
        .distinct()
        .sorted()
        .toList();
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

  private Optional<Part> part(String name, Path path, List<StacItem.BandNote> bands) {
    Pattern parts = pattern.map(Assemble::compiled).orElse(PART);
    Matcher matcher = parts.matcher(name);
    return matcher.matches()
        ? Optional.of(new Part(
            parts.namedGroups().containsKey("image") ? matcher.group("image") : image,
            Integer.parseInt(matcher.group("row")),
            Integer.parseInt(matcher.group("column")),
            path,
            bands))
        : Optional.empty();
  }

  /** A pattern of names as a regular expression with the groups image, row and column. */
  private static Pattern compiled(String pattern) {
    StringBuilder regex = new StringBuilder();
    Matcher places = PLACE.matcher(pattern);
    int from = 0;
    Set<String> seen = new HashSet<>();
    while (places.find()) {
      regex.append(Pattern.quote(pattern.substring(from, places.start())));
      String place = places.group(1);
      if (place == null) {
        regex.append(".*?");
      } else if (!seen.add(place)) {
        throw new IllegalArgumentException(
            "The pattern '" + pattern + "' has {" + place + "} twice. Each stands once.");
      } else {
        regex.append(place.equals("image") ? "(?<image>.+?)" : "(?<" + place + ">\\d{1,6})");
      }
      from = places.end();
    }
    regex.append(Pattern.quote(pattern.substring(from)));
    if (!seen.contains("row") || !seen.contains("column")) {
      throw new IllegalArgumentException("The pattern '" + pattern
          + "' does not say where the numbers of row and column stand, e.g. tile_{row}_{column}.");
    }
    return Pattern.compile(regex.toString(), Pattern.CASE_INSENSITIVE);
  }
}

package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKTReader;
import org.locationtech.jts.io.WKTWriter;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.expr.Table;
import sharpkestrel.io.AtomicFile;
import sharpkestrel.io.Json;
import sharpkestrel.io.Layer;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.RasterException;

/**
 * What a person did by hand, in the project's folder {@code hand}: a file of JSON, a line for each thing that was added or taken
 * away, with its place (OGC well-known text, in its coordinate system), its values, when and by whom. Lines are only ever added,
 * each is on the disk before the next begins, and a line that was cut short is passed over: nothing that was done is lost.
 */
public final class HandLog {

  private static final String ADD = "add";
  private static final String DROP = "drop";
  private static final String INDEX = "index";
  private static final String PLACE = "place";
  private static final String VALUES = "values";
  private static final String COLUMNS = "columns";
  private static final String CRS = "crs";

  private final Workspace workspace;
  private final String name;

  /** What there is after all lines, as they stand after {@code add}; null before the file was read. */
  private List<String> held;

  private JsonNode columns = Json.object();

  /**
   * @param name of the file, without ending
   */
  public HandLog(Workspace workspace, String name) {
    this.workspace = workspace;
    this.name = name;
  }

  public Path path() {
    return workspace.folder().resolve("hand").resolve(name + ".jsonl");
  }

  /**
   * What there is; empty where nothing was ever done or all was taken back. Reads the file the first time.
   *
   * @throws RasterException where the file cannot be read
   */
  public synchronized Optional<Layer> read() {
    load();
    if (held.isEmpty()) {
      return Optional.empty();
    }
    try {
      return Optional.of(layer());
    } catch (IOException | ParseException damaged) {
      throw new RasterException(path() + " is damaged: " + damaged.getMessage(), damaged);
    }
  }

  /** Keeps what there is from now on, in the save lane; what is new and what is gone is added to the file. */
  public void write(Layer now) {
    if (!workspace.isLookingOn()) {
      workspace.lanes().save().write(path(), () -> append(now));
    }
  }

  private void load() {
    if (held != null) {
      return;
    }
    List<String> all = new ArrayList<>();
    if (Files.isRegularFile(path())) {
      try {
        for (String line : Files.readAllLines(path())) {
          take(line, all);
        }
      } catch (IOException failed) {
        throw new RasterException(path() + " cannot be read: " + failed.getMessage(), failed);
      }
    }
    held = all;
  }

  private void take(String line, List<String> all) {
    try {
      JsonNode node = Json.parse(line);
      if (node.has(COLUMNS)) {
        columns = node;
      } else if (node.has(ADD)) {
        int at = Math.clamp(node.path(INDEX).asInt(all.size()), 0, all.size());
        all.add(at, Json.line(node.get(ADD)));
      } else if (node.has(DROP)) {
        String gone = Json.line(node.get(DROP));
        int at = node.path(INDEX).asInt(-1);
        if (at >= 0 && at < all.size() && all.get(at).equals(gone)) {
          all.remove(at);
        } else {
          all.remove(gone);
        }
      }
    } catch (RasterException cutShort) {
      // the process ended within this line; the one before it is whole
    }
  }

  private synchronized void append(Layer now) throws IOException {
    load();
    List<ObjectNode> lines = new ArrayList<>();
    ObjectNode head = head(now);
    if (now.size() > 0 && !head.equals(columns)) {
      lines.add(head);
      columns = head;
    }
    List<String> wanted = new ArrayList<>();
    for (int i = 0; i < now.size(); i++) {
      wanted.add(Json.line(item(now, i)));
    }
    Set<String> kept = new HashSet<>(wanted);
    for (int i = held.size() - 1; i >= 0; i--) {
      if (!kept.contains(held.get(i))) {
        drop(i, lines);
      }
    }
    for (int i = 0; i < wanted.size(); i++) {
      if (i < held.size() && held.get(i).equals(wanted.get(i))) {
        continue;
      }
      int elsewhere = i < held.size() ? held.subList(i, held.size()).indexOf(wanted.get(i)) : -1;
      if (elsewhere >= 0) {
        drop(i + elsewhere, lines);
      }
      ObjectNode line = stamped().put(INDEX, i);
      line.set(ADD, Json.parse(wanted.get(i)));
      lines.add(line);
      held.add(i, wanted.get(i));
    }
    while (held.size() > wanted.size()) {
      drop(held.size() - 1, lines);
    }
    if (!lines.isEmpty()) {
      write(lines);
    }
  }

  private void drop(int index, List<ObjectNode> lines) {
    ObjectNode line = stamped().put(INDEX, index);
    line.set(DROP, Json.parse(held.remove(index)));
    lines.add(line);
  }

  private void write(List<ObjectNode> lines) throws IOException {
    StringBuilder text = new StringBuilder();
    lines.forEach(line -> text.append(Json.line(line)).append('\n'));
    Files.createDirectories(path().getParent());
    try (FileChannel out = FileChannel.open(
        path(), StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.READ)) {
      long end = wholeLines(out);
      out.position(end);
      AtomicFile.writeAll(out, ByteBuffer.wrap(text.toString().getBytes(StandardCharsets.UTF_8)));
      out.force(true);
    }
  }

  /** Where the last whole line ends; a new line never continues one that was cut short. */
  private static long wholeLines(FileChannel file) throws IOException {
    long size = file.size();
    ByteBuffer last = ByteBuffer.allocate(1);
    if (size == 0 || file.read(last, size - 1) == 1 && last.get(0) == '\n') {
      return size;
    }
    AtomicFile.writeAll(file.position(size), ByteBuffer.wrap(new byte[] {'\n'}));
    return size + 1;
  }

  private static ObjectNode stamped() {
    return Json.object()
        .put("when", Instant.now().truncatedTo(ChronoUnit.SECONDS).toString())
        .put("who", System.getProperty("user.name", ""));
  }

  private static ObjectNode head(Layer layer) {
    ObjectNode head = Json.object();
    ArrayNode array = head.putArray(COLUMNS);
    for (Table.Column column : layer.table().columns()) {
      array
          .addObject()
          .put("name", column.name())
          .put("title", column.title())
          .put("unit", column.unit())
          .put("text", column.isText());
    }
    head.put("layer", layer.name());
    return head;
  }

  private static ObjectNode item(Layer layer, int i) {
    ObjectNode item = Json.object()
        .put(PLACE, new WKTWriter().write(layer.geometries().get(i)))
        .put(CRS, layer.crs().text());
    ObjectNode values = item.putObject(VALUES);
    for (Table.Column column : layer.table().columns()) {
      if (column.isText()) {
        values.put(column.name(), column.text(i));
      } else if (!Double.isNaN(column.values()[i])) {
        values.put(column.name(), column.values()[i]);
      }
    }
    return item;
  }

  private Layer layer() throws IOException, ParseException {
    List<JsonNode> items = new ArrayList<>();
    List<Geometry> places = new ArrayList<>();
    for (String text : held) {
      JsonNode item = Json.parse(text);
      items.add(item);
      places.add(new WKTReader().read(item.path(PLACE).asText()));
    }
    List<Table.Column> all = new ArrayList<>();
    for (JsonNode column : columns.path(COLUMNS)) {
      String of = column.path("name").asText();
      String title = column.path("title").asText();
      if (column.path("text").asBoolean()) {
        all.add(Table.Column.ofTexts(
            of, title, items.stream().map(i -> i.path(VALUES).path(of).asText()).toList()));
      } else {
        all.add(new Table.Column(
            of,
            title,
            column.path("unit").asText(),
            items.stream()
                .mapToDouble(i -> i.path(VALUES).path(of).asDouble(Double.NaN))
                .toArray()));
      }
    }
    return new Layer(
        columns.path("layer").asText(name),
        new CrsName(items.getFirst().path(CRS).asText()),
        places,
        new Table(items.size(), all),
        Map.of());
  }
}

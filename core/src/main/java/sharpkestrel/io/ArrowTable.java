package sharpkestrel.io;

import java.io.IOException;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import org.apache.arrow.memory.BufferAllocator;
import org.apache.arrow.memory.RootAllocator;
import org.apache.arrow.vector.FieldVector;
import org.apache.arrow.vector.Float8Vector;
import org.apache.arrow.vector.VarCharVector;
import org.apache.arrow.vector.VectorSchemaRoot;
import org.apache.arrow.vector.ipc.ArrowFileReader;
import org.apache.arrow.vector.ipc.ArrowFileWriter;
import org.apache.arrow.vector.types.FloatingPointPrecision;
import org.apache.arrow.vector.types.pojo.ArrowType;
import org.apache.arrow.vector.types.pojo.Field;
import org.apache.arrow.vector.types.pojo.FieldType;
import org.apache.arrow.vector.types.pojo.Schema;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.Job;

/**
 * Tables as files of Apache Arrow (IPC file format): column by column, as fast as the disk. Numbers are doubles, texts UTF-8; no
 * value is null. Titles and units stand in the metadata of the fields.
 *
 * @param remarks texts that go with the table as a whole
 */
public record ArrowTable(Table table, Map<String, String> remarks) {

  private static final int BATCH = 1 << 16;

  /** Bytes that reading may take beside twice the file: a damaged one must not take all there are. */
  private static final long LEAST_MEMORY = 1 << 20;

  private static final String TITLE = "title";
  private static final String UNIT = "unit";

  public void write(Path path, Job job) {
    AtomicFile.write(path, temporary -> {
      try (BufferAllocator memory = new RootAllocator();
          VectorSchemaRoot root = VectorSchemaRoot.create(schema(), memory);
          FileChannel channel = FileChannel.open(
              temporary,
              StandardOpenOption.CREATE,
              StandardOpenOption.TRUNCATE_EXISTING,
              StandardOpenOption.WRITE);
          ArrowFileWriter writer = new ArrowFileWriter(root, null, channel)) {
        writer.start();
        for (int from = 0; from < table.rows(); from += BATCH) {
          job.cancellation().check();
          job.progress("Writing columns", from, table.rows());
          int rows = Math.min(BATCH, table.rows() - from);
          for (Table.Column column : table.columns()) {
            fill(root.getVector(column.name()), column, from, rows);
          }
          root.setRowCount(rows);
          writer.writeBatch();
        }
        writer.end();
      }
    });
  }

  private Schema schema() {
    List<Field> fields = new ArrayList<>();
    for (Table.Column column : table.columns()) {
      ArrowType type = column.isText()
          ? ArrowType.Utf8.INSTANCE
          : new ArrowType.FloatingPoint(FloatingPointPrecision.DOUBLE);
      Map<String, String> about = Map.of(TITLE, column.title(), UNIT, column.unit());
      fields.add(new Field(column.name(), new FieldType(true, type, null, about), null));
    }
    return new Schema(fields, remarks);
  }

  private static void fill(FieldVector vector, Table.Column column, int from, int rows) {
    vector.reset();
    if (vector instanceof VarCharVector texts) {
      byte[][] categories = column.categories().stream()
          .map(text -> text.getBytes(StandardCharsets.UTF_8))
          .toArray(byte[][]::new);
      texts.allocateNew(rows);
      for (int i = 0; i < rows; i++) {
        double place = column.values()[from + i];
        if (Double.isNaN(place)) {
          texts.setNull(i);
        } else {
          texts.setSafe(i, categories[(int) place]);
        }
      }
    } else {
      Float8Vector numbers = (Float8Vector) vector;
      numbers.allocateNew(rows);
      for (int i = 0; i < rows; i++) {
        double value = column.values()[from + i];
        if (Double.isNaN(value)) {
          numbers.setNull(i);
        } else {
          numbers.set(i, value);
        }
      }
    }
    vector.setValueCount(rows);
  }

  /**
   * @throws FileFormatException for a file that is none of these, or holds other columns than doubles and texts
   */
  public static ArrowTable read(Path path, Job job) {
    try (FileChannel channel = FileChannel.open(path);
        BufferAllocator memory = new RootAllocator(LEAST_MEMORY + 2 * channel.size());
        ArrowFileReader reader = new ArrowFileReader(channel, memory)) {
      VectorSchemaRoot root = reader.getVectorSchemaRoot();
      int total = 0;
      List<double[][]> numbers = new ArrayList<>();
      List<String[][]> texts = new ArrayList<>();
      while (reader.loadNextBatch()) {
        job.cancellation().check();
        int rows = root.getRowCount();
        checkRows(path, rows, root, channel.size());
        double[][] batch = new double[root.getFieldVectors().size()][];
        String[][] words = new String[batch.length][];
        for (int c = 0; c < batch.length; c++) {
          switch (root.getVector(c)) {
            case Float8Vector vector -> batch[c] = numbers(vector, rows);
            case VarCharVector vector -> words[c] = texts(vector, rows);
            default ->
              throw new FileFormatException(path + ": column '"
                  + root.getVector(c).getName() + "' holds neither numbers of 64 bits nor texts.");
          }
        }
        numbers.add(batch);
        texts.add(words);
        total += rows;
      }
      List<Table.Column> columns = new ArrayList<>();
      List<Field> fields = root.getSchema().getFields();
      for (int c = 0; c < fields.size(); c++) {
        columns.add(column(fields.get(c), c, numbers, texts, total));
      }
      Map<String, String> remarks = root.getSchema().getCustomMetadata();
      return new ArrowTable(
          new Table(total, columns), remarks == null ? Map.of() : new LinkedHashMap<>(remarks));
    } catch (FileFormatException | CancellationException told) {
      throw told;
    } catch (IOException | RuntimeException | AssertionError wrong) {
      // The library tells of damage by many kinds of exceptions, its own and those of Java.
      throw new FileFormatException(
          path + " cannot be read as a table of Apache Arrow: " + wrong.getMessage() + ".", wrong);
    }
  }

  /** A number takes eight bytes of the file, a text the four of its place: a batch that claims more rows is damaged. */
  private static void checkRows(Path path, int rows, VectorSchemaRoot root, long size) {
    long bytes = root.getFieldVectors().stream()
        .mapToLong(vector -> vector instanceof Float8Vector ? Double.BYTES : Integer.BYTES)
        .sum();
    if (rows < 0 || rows * bytes > size) {
      throw new FileFormatException(path + " cannot be read as a table of Apache Arrow: it claims "
          + rows + " rows, more than its " + size + " bytes can hold. Make it again.");
    }
  }

  private static double[] numbers(Float8Vector vector, int rows) {
    double[] values = new double[rows];
    vector
        .getDataBuffer()
        .nioBuffer(0, rows * Double.BYTES)
        .order(ByteOrder.nativeOrder())
        .asDoubleBuffer()
        .get(values);
    for (int i = 0; vector.getNullCount() > 0 && i < rows; i++) {
      values[i] = vector.isNull(i) ? Double.NaN : values[i];
    }
    return values;
  }

  private static String[] texts(VarCharVector vector, int rows) {
    String[] values = new String[rows];
    long end = 0;
    for (int i = 0; i < rows; i++) {
      // places of texts go up, and end with the data: else one short file could ask for any length
      // again and again
      int from = vector.getStartOffset(i);
      int to = vector.getEndOffset(i);
      if (from < end || to < from || to > vector.getDataBuffer().capacity()) {
        throw new IllegalArgumentException("text " + i + " does not lie where texts are");
      }
      end = to;
      values[i] =
          vector.isNull(i) ? null : new String(vector.get(i), StandardCharsets.UTF_8).intern();
    }
    return values;
  }

  private static Table.Column column(
      Field field, int c, List<double[][]> numbers, List<String[][]> texts, int total) {
    Map<String, String> about = field.getMetadata();
    String title = about.getOrDefault(TITLE, field.getName());
    if (field.getType() instanceof ArrowType.Utf8) {
      List<String> all = new ArrayList<>(total);
      texts.forEach(batch -> all.addAll(Arrays.asList(batch[c])));
      return Table.Column.ofTexts(field.getName(), title, all);
    }
    double[] values = new double[total];
    int at = 0;
    for (double[][] batch : numbers) {
      System.arraycopy(batch[c], 0, values, at, batch[c].length);
      at += batch[c].length;
    }
    return new Table.Column(field.getName(), title, about.getOrDefault(UNIT, ""), values);
  }
}

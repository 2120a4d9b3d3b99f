package sharpkestrel.demo.sensor;

/** Where image points look. Image coordinates count from the outer corner of the first pixel; heights are ellipsoidal. */
public interface Sensor {

  int width();

  int height();

  /** The rays of one row: what is the same for all of them is worked out once. */
  interface Row {

    /**
     * The ray of a column as a line over heights: east and north at height 0, and their change for a metre of height, in
     * {@code ray[0..3]}.
     */
    void ray(double col, double[] ray);
  }

  Row row(double row);

  default void ray(double col, double row, double[] ray) {
    row(row).ray(col, ray);
  }

  /** Column and row of a point of the ground, in {@code image[0..1]}. */
  void toImage(double east, double north, double height, double[] image);
}

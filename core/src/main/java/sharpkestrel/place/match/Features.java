package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.List;
import org.bytedeco.javacpp.PointerScope;
import org.bytedeco.javacpp.indexer.UByteIndexer;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.opencv_core.DMatch;
import org.bytedeco.opencv.opencv_core.DMatchVectorVector;
import org.bytedeco.opencv.opencv_core.KeyPointVector;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_features2d.BFMatcher;
import org.bytedeco.opencv.opencv_features2d.SIFT;
import sharpkestrel.raster.Histogram;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Statistics;

/**
 * Features that look alike in two rasters, whatever turn and scale lies between them (SIFT; Lowe 2004, IJCV 60(2)). Many
 * of the pairs are wrong.
 */
final class Features {

  private static final int MOST = 7000;
  private static final int LONGEST_SIDE = 1800;
  /** The nearest descriptor must be nearer than the second nearest by this much. */
  private static final float RATIO = 0.86f;

  private Features() {}

  /** Places in both, in pixels of full size. */
  record Pair(double col, double row, double referenceCol, double referenceRow) {}

  static List<Pair> pairs(Raster scene, Raster reference, Job job) {
    try (PointerScope scope = new PointerScope()) {
      int ours = level(scene);
      int theirs = level(reference);
      KeyPointVector here = new KeyPointVector();
      KeyPointVector there = new KeyPointVector();
      Mat one = described(scene, ours, here, job);
      Mat two = described(reference, theirs, there, job);
      List<Pair> pairs = new ArrayList<>();
      if (here.size() < 2 || there.size() < 2) {
        return pairs;
      }
      DMatchVectorVector matches = new DMatchVectorVector();
      new BFMatcher(opencv_core.NORM_L2, false).knnMatch(one, two, matches, 2);
      for (long i = 0; i < matches.size(); i++) {
        if (matches.get(i).size() < 2) {
          continue;
        }
        DMatch first = matches.get(i).get(0);
        DMatch second = matches.get(i).get(1);
        if (first.distance() < RATIO * second.distance()) {
          var a = here.get(first.queryIdx()).pt();
          var b = there.get(first.trainIdx()).pt();
          // features count from the middle of the first pixel
          pairs.add(new Pair(
              (a.x() + 0.5) * (1 << ours),
              (a.y() + 0.5) * (1 << ours),
              (b.x() + 0.5) * (1 << theirs),
              (b.y() + 0.5) * (1 << theirs)));
        }
      }
      return pairs;
    }
  }

  private static int level(Raster raster) {
    int level = 0;
    while (Math.max(raster.grid().width(), raster.grid().height()) >> level > LONGEST_SIDE) {
      level++;
    }
    return Math.min(level, raster.levels() - 1);
  }

  private static Mat described(Raster raster, int level, KeyPointVector keys, Job job) {
    var window = raster.grid().atLevel(level).window();
    float[] pixels = raster.read(level, window, Request.BACKGROUND)[0];
    Histogram spread = Statistics.of(raster, level, job)[0].histogram();
    double low = spread.quantile(0.01);
    double high = spread.quantile(0.99);
    Mat grey = new Mat(window.height(), window.width(), opencv_core.CV_8UC1);
    Mat mask = new Mat(window.height(), window.width(), opencv_core.CV_8UC1);
    try (UByteIndexer tones = grey.createIndexer();
        UByteIndexer valid = mask.createIndexer()) {
      for (int y = 0; y < window.height(); y++) {
        for (int x = 0; x < window.width(); x++) {
          float v = pixels[y * window.width() + x];
          boolean known = !Float.isNaN(v);
          double tone = known ? (v - low) / (high - low) : 0;
          tones.put(y, x, (int) (255 * Math.max(0, Math.min(1, tone))));
          valid.put(y, x, known ? 255 : 0);
        }
      }
    }
    Mat descriptors = new Mat();
    SIFT.create(MOST, 3, 0.02, 12, 1.6, false)
        .detectAndCompute(grey, mask, keys, descriptors, false);
    return descriptors;
  }
}

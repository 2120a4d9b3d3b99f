package sharpkestrel.geo;

import sharpkestrel.raster.CrsName;

/**
 * A frame camera and the scan of its film: central projection (collinearity, Kraus 2007, Photogrammetry, section 4.2),
 * radial distortion (Brown 1971, first term), and the film's shrinkage and shear.
 *
 * <p>Ground coordinates are taken as those of a level plane: over the few kilometres of an air photo the earth's
 * curvature is taken up by focal length and height.
 *
 * @param width of the scan, pixels
 * @param x place of the lens in the ground's system; {@code z} in metres from where heights are counted
 * @param omega turn about x, radians; {@code phi} about y, {@code kappa} about the vertical
 * @param focal length in pixels of the scan
 * @param radial share by which a point at the focal length from the middle is moved outwards
 * @param stretch share by which rows are longer, and columns shorter, than they should be
 * @param shear pixels to the right for a pixel down
 */
public record FrameCamera(
    CrsName crs,
    int width,
    int height,
    double x,
    double y,
    double z,
    double omega,
    double phi,
    double kappa,
    double focal,
    double radial,
    double stretch,
    double shear)
    implements ImageModel {

  @Override
  public boolean usesHeights() {
    return true;
  }

  @Override
  public void toImage(double east, double north, double up, double[] image) {
    double so = Math.sin(omega);
    double co = Math.cos(omega);
    double sp = Math.sin(phi);
    double cp = Math.cos(phi);
    double sk = Math.sin(kappa);
    double ck = Math.cos(kappa);
    double dx = east - x;
    double dy = north - y;
    double dz = up - z;
    // into the camera's axes: turned back about x, then y, then z
    double y1 = co * dy + so * dz;
    double z1 = -so * dy + co * dz;
    double x2 = cp * dx - sp * z1;
    double z2 = sp * dx + cp * z1;
    double x3 = ck * x2 + sk * y1;
    double y3 = -sk * x2 + ck * y1;
    if (z2 >= 0) {
      image[0] = Double.NaN;
      image[1] = Double.NaN;
      return;
    }
    double u = -x3 / z2;
    double v = y3 / z2;
    double bend = focal * (1 + radial * (u * u + v * v));
    u *= bend;
    v *= bend;
    image[0] = width / 2.0 + (1 + stretch) * u + shear * v;
    image[1] = height / 2.0 + (1 - stretch) * v;
  }
}

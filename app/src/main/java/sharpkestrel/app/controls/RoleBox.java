package sharpkestrel.app.controls;

import javafx.scene.control.ComboBox;
import javafx.util.StringConverter;
import sharpkestrel.raster.BandRole;

/** A choice of what a band stands for. */
public final class RoleBox extends ComboBox<BandRole> {

  public RoleBox(String id, double width) {
    setId(id);
    setPrefWidth(width);
    setConverter(new StringConverter<>() {
      @Override
      public String toString(BandRole role) {
        return role == null ? "" : role.label();
      }

      @Override
      public BandRole fromString(String text) {
        return BandRole.guess(text);
      }
    });
  }
}

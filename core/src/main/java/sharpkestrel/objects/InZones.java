package sharpkestrel.objects;

import java.util.Optional;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.raster.Job;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;
import sharpkestrel.step.Suits;

/** Objects and the zones they lie in. */
public record InZones(
    @In(does = "The objects, measured.") ObjectSet objects,

    @In(
        does = "The zones' outlines, such as parishes; objects of a coarser cut will do too.",
        suits = Suits.OBJECTS)
    OutlineSet zones,

    @Setting(
        label = "Names",
        does = "Column of the zones' names; auto takes the first column of texts.",
        initial = "auto")
    Optional<String> names) {

  Zones assign(Job job) {
    return Zones.of(objects, zones, names.orElse(""), job);
  }
}

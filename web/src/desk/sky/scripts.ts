/** The scripts that kinds bring: those of a delivery, which panes run too. */
import.meta.glob("../../../../core/skypane/kinds/*/*.js", { eager: true });

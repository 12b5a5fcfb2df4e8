"""The materials of the demo building."""

from stairpath.demo.forms import Stuff

CONCRETE = Stuff("Concrete C30/37", (0.72, 0.71, 0.69))
STEEL = Stuff("Steel S355", (0.45, 0.42, 0.50))
MASONRY = Stuff("Brick, lime-washed", (0.84, 0.80, 0.73))
PLASTERBOARD = Stuff("Plasterboard on steel studs", (0.90, 0.88, 0.84))
MINERAL_TILE = Stuff("Mineral fibre tile", (0.94, 0.94, 0.92))
SCREED = Stuff("Screed with resin finish", (0.78, 0.78, 0.76))
TIMBER = Stuff("Oak veneer", (0.70, 0.54, 0.36))
GLASS = Stuff("Glass, low iron", (0.70, 0.84, 0.86), transparency=0.65)
ALUMINIUM = Stuff("Aluminium, anodised", (0.66, 0.68, 0.70))
STAINLESS = Stuff("Stainless steel 1.4404", (0.74, 0.76, 0.78))
GALVANISED = Stuff("Steel sheet 0.8, galvanised", (0.62, 0.70, 0.78))
HDPE = Stuff("HDPE", (0.16, 0.50, 0.46))
COPPER = Stuff("Copper", (0.72, 0.45, 0.30))
RED_STEEL = Stuff("Steel pipe, red oxide", (0.66, 0.26, 0.18))
ZINC_TRAY = Stuff("Steel, hot-dip galvanised", (0.72, 0.66, 0.44))
POLYMER = Stuff("Polycarbonate", (0.93, 0.93, 0.90))
LAMINATE = Stuff("Compact laminate", (0.62, 0.56, 0.48))
ACRYLIC = Stuff("Acrylic 40 mm", (0.60, 0.82, 0.84), transparency=0.55)
ROOFING = Stuff("Bitumen membrane on insulation", (0.42, 0.43, 0.45))

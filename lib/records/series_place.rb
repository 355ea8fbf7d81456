module Records
  # Equipment, or another room, that a series holds besides its own.
  class SeriesPlace < Base
    belongs_to :place, class_name: "Records::Place"
  end
end

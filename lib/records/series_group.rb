module Records
  # A group asked as a whole; its people are members by way of it.
  class SeriesGroup < Base
    belongs_to :group, class_name: "Records::Group"
  end
end

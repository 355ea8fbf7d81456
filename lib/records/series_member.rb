module Records
  class SeriesMember < Base
    belongs_to :series, class_name: "Records::Series"
    belongs_to :person, class_name: "Records::Person"
  end
end

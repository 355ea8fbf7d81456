module Records
  # A busy time entered by hand, on the owner's wall.
  class BusyEntry < Base
    belongs_to :calendar, class_name: "Records::Calendar"
  end
end

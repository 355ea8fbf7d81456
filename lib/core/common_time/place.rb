module Core
  module CommonTime
    # A place that would do. `taken` Spans in minutes: what holds it, what its calendar says, and its closed hours.
    Place = Value.of(:id, :taken)
  end
end

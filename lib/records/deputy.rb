module Records
  # Somebody who may write and hold meetings for the keeper: all of a series, or one.
  class Deputy < Base
    belongs_to :person, class_name: "Records::Person"

    # @param meeting_id [String, nil] nil: for those of the whole series alone
    scope :at, ->(series_id, meeting_id) { where(series_id: series_id, meeting_id: [nil, meeting_id].uniq) }
  end
end

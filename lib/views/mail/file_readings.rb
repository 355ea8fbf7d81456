module Views
  # How far the reading of a file is that somebody has handed in.
  class FileReadings < Base
    # Those that are looked at before anything is kept.
    KINDS = %w[people series actions].freeze

    # @raise [Core::Invalid] what was wrong with the file, once it is read
    def show(id)
      reading = find(Records::FileReading.where(person_id: by).select(:id, :kind, :state, :outcome, :error), id)
      if reading.state == "failed"
        raise Core::Invalid.new(
          reading.error.to_s, pointer: "/content", code: reading.outcome&.fetch("code", nil) || "unreadable"
        )
      end

      held = KINDS.to_h { |kind| [kind.to_sym, (reading.outcome if reading.kind == kind && reading.state == "done")] }
      {id: id, state: reading.state, **held}
    end
  end
end

module Views
  # How far the reading of a file is that somebody has handed in.
  class FileReadings < Base
    # @raise [Core::Invalid] what was wrong with the file, once it is read
    def show(id)
      reading = find(Records::FileReading.where(person_id: by).select(:id, :kind, :state, :outcome, :error), id)
      if reading.state == "failed"
        raise Core::Invalid.new(
          reading.error.to_s, pointer: "/content", code: reading.outcome&.fetch("code", nil) || "unreadable"
        )
      end

      {id: id, state: reading.state, people: (reading.outcome if reading.kind == "people" && reading.state == "done")}
    end
  end
end

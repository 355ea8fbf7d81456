module UseCases
  # Files that somebody hands in: an invitation, a table of people or of actions, a series in a calendar. They are kept
  # at once and read by the worker, so that no web server waits for what may be in them; whoever handed one in asks how
  # far it is.
  class FileReadings < Base
    KEPT_S = 3_600
    KINDS = {
      "invitation" => ->(reading, content, clock) do
        OutsideMeetings.new(by: reading.person_id, clock: clock).add_file(content) && {}
      end,
      "people" => ->(reading, content, clock) do
        PeopleImport.new(by: reading.person_id, clock: clock).preview(
          content: content, **reading.settings.transform_keys(&:to_sym)
        )
      end,
      "series" => ->(reading, content, clock) do
        Views::MovingIn.new(by: reading.person_id, clock: clock).show(content)
      end,
      "actions" => ->(reading, content, clock) do
        Views::ActionImport.new(by: reading.person_id, clock: clock).read(
          content: content, **reading.settings.transform_keys(&:to_sym)
        )
      end
    }.freeze

    def self.queue(clock: Clock) =
      Queue.new(Records::FileReading, aside: {state: "failed", source: nil}, error: :error, clock: clock)

    # @param what [String] a key of KINDS
    # @param content [String] the file's bytes
    # @param most [Integer] how many there may be
    # @param settings [Hash] what reading needs besides
    def hand_in(what, content:, most:, **settings)
      raise Core::Invalid.new("Choose a file.", pointer: "/content") if content.to_s.empty?
      if content.bytesize > most
        raise Core::Invalid.new(
          "This file is larger than #{(most < 1_000_000) ? "#{most / 1_000} KB" : "#{most / 1_000_000} MB"}.",
          pointer: "/content"
        )
      end

      id = Records::Key.make(now)
      write { Records::FileReading.create!(id: id, person_id: by, kind: what, source: content, settings: settings) }
      id
    end

    # For the worker. @return [Boolean] whether there was one
    def read_next
      queue = FileReadings.queue(clock: @clock)
      queue
        .work(Records::FileReading.to_read(now).order(:created_at, :id)) do |reading|
          queue.settle(
            reading, state: "done", source: nil,
            outcome: KINDS.fetch(reading.kind).call(reading, reading.source, @clock)
          )
        rescue Core::Invalid => error
          queue.settle(
            reading,
            state: "failed",
            source: nil,
            error: error.message[0, 500],
            outcome: {
              "code" => error.code
            }
          )
        end
        .positive?
    end

    def sweep = Records::FileReading.where("created_at < ?", now - KEPT_S).in_batches(of: 500).delete_all
  end
end

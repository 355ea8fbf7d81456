module UseCases
  # What a person can do, grouped by what it is done to: load, ask the core, save. Nothing is decided here.
  # Results are plain hashes and arrays in the words of the contract, keys in snake case.
  class Base
    # @param by [String, nil] key of the person acting
    # @param clock [#now] the only clock; the demo hands in one of its own
    def initialize(by: nil, clock: Time)
      @by = by
      @clock = clock
    end

    private

    attr_reader :by

    def now = @now ||= @clock.now.getutc.floor(6)

    def write(&) = Records::Base.write(&)

    # Makes what has this key, once: sent again, or twice at the same moment, it changes nothing.
    def once(records, id)
      write { records.exists?(id: id) || yield }
    rescue ActiveRecord::RecordNotUnique
      raise unless records.exists?(id: id)
    end

    def find(records, id) = records.find_by(id: id) || raise(Core::NotFound)

    # Locks a row that two people may change at once and refuses a version that is not the latest. When the row
    # already reads as wished, the write came twice and nothing is done.
    # @param version [Integer, nil] nil: no version asked for
    # @return [Boolean] whether anything was changed
    def update(record, version, **wish)
      record.lock!
      record.assign_attributes(wish)
      return false unless record.changed?
      raise Core::Stale.new(version: record.lock_version) if version && version != record.lock_version

      record.save!
    end

    # A short text: trimmed, nil when empty. @raise [Core::Invalid] when it must be given
    def words(text, pointer: nil, missing: nil)
      trimmed = text.to_s.strip
      raise Core::Invalid.new(missing, pointer: pointer) if missing && trimmed.empty?

      trimmed.empty? ? nil : trimmed
    end
  end
end

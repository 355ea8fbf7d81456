module UseCases
  # What a person can do, grouped by what it is done to: load, ask the core, save. Nothing is decided here.
  # Results are plain hashes and arrays in the words of the contract, keys in snake case.
  class Base
    # @param by [String, nil] key of the person acting
    # @param clock [#now] the only clock; the demo hands in one of its own
    # @param sent [String, nil] what tells one request from another with the same key; see `once`
    def initialize(by: nil, clock: Clock, sent: nil)
      @by = by
      @clock = clock
      @sent = sent
    end

    private

    attr_reader :by

    def now = @now ||= @clock.now.getutc.floor(6)

    def write(&) = Records::Base.write(&)

    # Makes what has this key, once: sent again by the same person for the same place, or twice at the same moment, it
    # changes nothing. To everybody else the key is taken, and that is all they learn; sent with other content, it is
    # refused, so that nobody takes for kept what is not.
    # @param within [String, nil] key of what it is made in
    # @raise [Core::Conflict] codes "key-taken" and "kept-otherwise"
    def once(records, id, within: nil)
      write do
        next if made?(records, id, within)
        # Looked at again: the same may have been sent twice, and made by the other in between.
        next made?(records, id, within) || raise(key_taken) if records.exists?(id: id)

        # Noted last: what the database refuses in between was not made.
        yield
        note_made(records, id, within)
      end
    rescue ActiveRecord::RecordNotUnique
      raise unless made?(records, id, within)
    rescue Core::Conflict, Core::Invalid
      # The same, sent at the same moment, was quicker, and what stood in the way is what it has made. Not within
      # another transaction, which would keep half of this.
      raise if Records::Base.writing? || !made?(records, id, within)
    end

    def note_made(records, id, within)
      Records::MadeKey.create!(
        id: id, kind: records.table_name, made_by_id: by, within_id: within, content: @sent, created_at: now
      )
    end

    # @raise [Core::Conflict] when somebody else has made something with this key, or elsewhere, or something else
    def made?(records, id, within)
      *known, content = Records::MadeKey.where(id: id).pick(:kind, :made_by_id, :within_id, :content)
      return false if known.empty?
      raise key_taken unless known == [records.table_name, by, within]

      content.nil? || @sent.nil? || content == @sent || raise(kept_otherwise)
    end

    def kept_otherwise
      Core::Conflict.new(
        "This has been kept already, as it was sent first. Look at it, and change it there.", code: "kept-otherwise"
      )
    end

    def key_taken = Core::Conflict.new("This key is taken. Make another.", code: "key-taken")

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

    # @raise [Core::Conflict] when it is too late to say who comes
    def refuse_over(meeting) = Core::Sheet::Lifecycle.refuse_over(meeting.state.to_sym, meeting.ends_at, now)

    # A short text: trimmed, nil when empty. @raise [Core::Invalid] when it must be given
    def words(text, pointer: nil, missing: nil)
      trimmed = text.to_s.strip
      raise Core::Invalid.new(missing, pointer: pointer) if missing && trimmed.empty?

      trimmed.empty? ? nil : trimmed
    end
  end
end

module UseCases
  # What several changes in ten minutes come to is one mail: the first goes at once, what changes after it waits and is
  # told together. What is called off, or begins within a day, waits for nothing.
  class Gathering
    SOON_S = 86_400

    # @param series [Records::Series] locked
    # @param person_ids [Array<String>] of those who are told now
    def initialize(series, person_ids, now)
      @series, @now = series, now
      @last = lately(person_ids)
    end

    # @param one [Loading::Recipients::Recipient]
    # @return [Array(Recipient, Hash)] as what they are told, and what the row of their mail says otherwise
    def take(one)
      last = @last[one.person.id]
      return [one, {}] unless last && one.kind == :changed

      return [one, {due_at: [last.created_at + Settings.gather_s, @now].max}] unless held?(last) && replace(last)

      kind = (last.kind == "invited") ? :invited : :changed
      [one.with(kind: kind, before: (one.before if kind == :changed)),
        {due_at: last.due_at, before_sending_id: (last.before_sending_id if kind == :changed)}]
    end

    private

    def lately(person_ids)
      return {} if Settings.gather_s.zero? || soon?

      mails = Records::Mail.where(series_id: @series.id, person_id: person_ids, kind: %w[invited changed brought_back])
      mails.where("created_at > ?", @now - Settings.gather_s).order(:created_at, :id).index_by(&:person_id)
    end

    def soon?
      next_start = @series.meetings.coming(@now).minimum(:starts_at)
      next_start.nil? || next_start < @now + SOON_S
    end

    # A word that was written with it is not lost.
    def held?(mail)
      mail.due_at > mail.created_at && mail.state == "waiting" && mail.due_at > @now &&
        wordless?(mail.sending_id)
    end

    def wordless?(sending_id)
      (@wordless ||= Hash.new { |known, id| known[id] = Records::Sending.where(id: id, note: nil).exists? })[sending_id]
    end

    # Unless a worker has it by now.
    def replace(mail)
      Records::Mail.where(id: mail.id, state: "waiting", claim: nil).delete_all == 1
    end
  end
end

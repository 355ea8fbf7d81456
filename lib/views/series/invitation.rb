module Views
  # Who is to be told of a series and with which words, before anything goes; and how far a sending has come.
  class Invitation < Base
    MOST_FAILURES = 20
    # What is to go later than that is held: for a number to dial, or for what else is changed.
    HELD_S = 20

    # @param note [String, nil] a word for this once
    # @param person_id [String, nil] whose mail is shown; nil: the first to be told
    def preview(series_id:, note: nil, person_id: nil)
      load(series_id)
      note = note.to_s.strip.presence
      shown = shown_of(person_id)
      own = shown.person.id == by
      parts = parts_for(shown, note: note, attendees: @recipients.attendees, link: own ? :own : :shown)
      {
        **parts.slice(:subject, :text, :html),
        copy: copy(shown, note), attachments: @mail.next.names, agenda_of: @mail.next.meeting_id,
        shown_person_id: shown.person.id, changes: @recipients.changes,
        unreachable: @recipients.unreachable.map { |person| named(person) },
        recipients: rows + others.map { |one, kind| other_row(one, kind) }
      }
    end

    # @param series [Records::Series] with keeper, place, members and their people
    # @return [Hash] how many have not been told, and of what, in words
    def untold(series)
      @recipients = Loading::Recipients.new(series.id, now: now, series: series)
      waiting = @recipients.waiting
      counts = Core::Invitation::News::KINDS.without(:changed).to_h { |kind| [kind, waiting.count { _1.kind == kind }] }
      counts[:invited] += others.count { |one, kind| kind == :request && one.told_digest.nil? }
      people = waiting.size + others.size
      # Where everybody knows what holds, nothing has changed for anybody.
      {people: people, **counts, changes: people.zero? ? [] : @recipients.changes}
    end

    # How far a sending has come. @raise [Core::NotFound]
    def progress(id, series_id: nil)
      sending = find(series_id ? Records::Sending.where(series_id: series_id) : Records::Sending, id)
      mails = Records::Mail.where(sending_id: id)
      held = mails.where(state: "waiting").where("due_at > ?", now + HELD_S)
      counts = mails.group(:state).count
      failed = mails.where(state: "failed").limit(MOST_FAILURES).pluck(:recipient, :last_error)
      {
        id: id, recipients: sending.recipients, waiting: counts["waiting"] || 0,
        held: held.count, held_until: held.maximum(:due_at),
        sent: counts.values_at("sent", "delivered").sum(&:to_i), failed: counts["failed"] || 0,
        failures: failed.map { |recipient, error| {address: recipient, error: error} }
      }
    end

    private

    def load(series_id)
      @recipients = Loading::Recipients.new(series_id, now: now)
      @mail = Loading::InvitationMail.new(@recipients.series, now: now)
    end

    def all = @recipients.waiting + @recipients.told

    # Whose mail is shown; to who knows already, the invitation as it stands.
    def shown_of(person_id)
      one = all.find { |each| each.person.id == person_id } || @recipients.waiting.first ||
        @recipients.everybody.first || keeper
      one.kind ? one : one.with(kind: :invited)
    end

    def keeper
      Loading::Recipients::Recipient.new(
        person: @recipients.series.keeper, role: :required, kind: :invited, before: nil, role_before: nil
      )
    end

    def parts_for(one, note:, **more)
      @mail.parts(one, content: @recipients.content, note: note, wording: @recipients.series.wording, **more)
    end

    # The words for other ways than mail: they go to whoever is shown them, so no link in them is somebody's own. Where
    # each meeting has a call of its own, they are of the next alone.
    def copy(shown, note)
      content = @recipients.content
      content = content.next_alone(now) if @recipients.series.call_kind == "fresh" && content.start
      @mail.parts(
        shown.with(kind: :invited, before: nil, role_before: nil), content: content, note: note,
        wording: @recipients.series.wording, link: :none
      )[:text]
    end

    # Who is asked to one meeting alone.
    def others = @others ||= Loading::Substitutes.pending([@recipients.series], now: now).values.flatten(1)

    def rows = all.sort_by { |one| [one.kind ? 0 : 1, one.person.name] }.map { |one| row(one) }

    def row(one)
      {
        person_id: one.person.id, name: one.person.name, email: one.person.email, role: one.role,
        told: one.kind.nil?, guest: one.person.guest, what: one.kind&.to_s&.tr("_", " ") || "nothing"
      }
    end

    def other_row(one, kind)
      asked = one.told_digest ? "changed" : "invited"
      {
        person_id: one.person_id, name: [one.person.name, one.instead_of&.name].compact.join(", instead of "),
        email: one.person.email, role: "required", told: false, guest: one.person.guest,
        what: (kind == :cancel) ? "called off" : asked
      }
    end
  end
end

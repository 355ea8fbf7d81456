module UseCases
  # Minutes that are frozen and sent: issued, corrected by another version, approved at a later meeting. Issuing writes
  # rows; the PDF and the mails are made when the mails are handed over, from the version they speak of.
  class Issuing < Base
    # Freezes the minutes as they are and sends them to everybody of the series. Inside a transaction.
    # @param meeting [Records::Meeting]
    def issue(meeting)
      sheet = Views::Sheet.new(by: by, clock: @clock).content_of(meeting.id)
      before = versions(meeting.id).last
      version = Records::MinutesVersion.create!(
        meeting_id: meeting.id, number: (before&.number || 0) + 1, issued_by_id: by, issued_at: now,
        reason: meeting.correcting_reason, content: Loading::Plain.of(sheet)
      )
      meeting.update!(correcting_reason: nil)
      BelowQuorum.new(by: by, clock: @clock).mark(meeting)
      note(meeting, before ? "corrected: #{version.reason}" : "issued")
      put_mails(meeting, version)
    end

    # The mail itself. @param mail [Records::Mail] of kind "minutes"
    # @return [Hash] what Mailing::Message#source takes besides key and address
    def compose(mail)
      _, meeting_id, number = mail.reason.split(":")
      minutes = minutes_of(meeting_id, number.to_i, mail.person_id)
      minutes[:mail].parts(mail.person_id, url: page_of(meeting_id, mail.person)).merge(
        reply_to: minutes[:reply_to], attachments: [["#{minutes[:name]}.pdf", "application/pdf", minutes[:pdf]]]
      )
    end

    # Opens issued minutes again, to be issued anew.
    # @param reason [String] why
    def correct(meeting_id:, reason:)
      reason = words(reason, pointer: "/reason", missing: "Say why, for everybody who has the minutes.")
      write do
        meeting = find(Records::Meeting.lock, meeting_id)
        next if meeting.correcting_reason

        refuse_unless(meeting.state == "issued", "Only minutes that were issued are corrected.")
        meeting.update!(state: "closed", correcting_reason: reason)
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    # Leaves the minutes as they were issued.
    def leave_as_issued(meeting_id)
      write do
        meeting = find(Records::Meeting.lock, meeting_id)
        next unless meeting.correcting_reason

        meeting.update!(state: "issued", correcting_reason: nil)
        close_again(meeting_id)
        Records::Change.note(meeting_id, now)
      end
      nil
    end

    # @param at_meeting_id [String] the later meeting of the same series that approves them, or takes that back
    def approve(meeting_id:, at_meeting_id:, approved:)
      write do
        meeting = find(Records::Meeting, meeting_id)
        at = find(Records::Meeting.where(series_id: meeting.series_id), at_meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(at.state.to_sym)
        version = versions(meeting_id).last
        refuse_unless(meeting.state == "issued" && version, "Only minutes that were issued are approved.")
        refuse_unless(at.starts_at > meeting.starts_at, "Minutes are approved at a later meeting.")
        next if approved == !version.approved_at.nil?

        settle(version, approved ? at : nil)
        note(meeting, approved ? "minutes approved" : "minutes no longer approved")
        Records::Change.note_all([meeting_id, at_meeting_id], now)
      end
      nil
    end

    private

    def versions(meeting_id) = Records::MinutesVersion.where(meeting_id: meeting_id).order(:number)

    # What was closed when it was issued, and opened since without being issued so.
    def close_again(meeting_id)
      rows = versions(meeting_id).last.sheet["topics"].select { |row| row["closed"] }
      Records::Topic.where(id: rows.map { |row| row["id"] }).update_all(closed: true)
    end

    def settle(version, at)
      version.update!(approved_at_meeting_id: at&.id, approved_by_id: at && by, approved_at: at && now)
    end

    def refuse_unless(fine, sentence)
      raise Core::Conflict.new(sentence, code: "state") unless fine
    end

    def note(meeting, words)
      Records::Event.note(
        "minutes", "#{Core::Words.day(meeting.held_on)}: #{words}", series_id: meeting.series_id,
        meeting_id: meeting.id, now: now, person_id: by
      )
    end

    def put_mails(meeting, version)
      rows = meeting.series.members.includes(:person).select { |member| wants?(member) }.map(&:person)
        .select(&:reachable?)
        .map { |person| mail_row(meeting, version, person) }
      Records::Mail.insert_all(rows) if rows.any?
    end

    def wants?(member) = member.role != "informed" || member.person.mail_wish.wants?("informed_minutes")

    def mail_row(meeting, version, person)
      reason = "minutes:#{meeting.id}:#{version.number}:#{person.id}"
      subject = Mailing::Minutes.subject(meeting.series.title, meeting.held_on, version.reason)
      {
        id: Records::Key.make(now), reason: reason, message_id: Outbox.new(clock: @clock).message.message_id(reason),
        series_id: meeting.series_id, person_id: person.id, kind: "minutes", recipient: person.email,
        subject: Core::Words.shorten(subject, 200), **Outbox.waits(person, :none, now), state: "waiting",
        created_at: now, updated_at: now
      }
    end

    # What all mails of a version share, read once for a batch of them: for who reads closed topics, and for others.
    def minutes_of(meeting_id, number, person_id)
      version = version_of(meeting_id, number)
      closed = ((@closed ||= {})[meeting_id] ||= Loading::ClosedTopics.from_each(version.meeting)).call(person_id)
      (@minutes ||= {})[[version.id, closed.nil?]] ||= minutes(version, closed)
    end

    def version_of(meeting_id, number)
      (@versions ||= {})[[meeting_id, number]] ||=
        versions(meeting_id).includes(meeting: {series: %i[members keeper]}).find_by(number: number) ||
        raise(Core::NotFound)
    end

    def minutes(version, closed)
      before = versions(version.meeting_id).where("number < ?", version.number).last
      document = Views::MinutesFile.document(version.sheet, version: version, closed: closed)
      changes = before ? Views::MinutesFile.changes(before, version, closed: closed) : []
      {
        name: document.name, mail: Mailing::Minutes.new(document, reason: version.reason, changes: changes),
        pdf: pdf_of(version, document, open_part: !closed.nil?), reply_to: version.meeting.series.keeper.email
      }
    end

    # Guests have the page of their own link.
    def page_of(meeting_id, person)
      return "#{Settings.origin}/meetings/#{meeting_id}" unless person.guest

      Loading::AnswerLink.address(Records::Meeting.where(id: meeting_id).pick(:series_id), person.id)
    end

    # Made once and kept: whoever has it has the same.
    # @param open_part [Boolean] without what stands under closed topics
    def pdf_of(version, document, open_part:)
      kept = Records::MinutesPdf.where(id: version.id, open_part: open_part)
      kept.pick(:bytes) || begin
        made = Mailing::MinutesPdf.new(document).source
        write { Records::MinutesPdf.insert({id: version.id, open_part: open_part, bytes: made}) }
        kept.pick(:bytes)
      end
    end
  end
end

module UseCases
  # Minutes that are frozen and sent: issued, corrected by another version, approved at a later meeting.
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
      note(meeting, before ? "corrected: #{version.reason}" : "issued")
      mail(meeting, version, before)
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

    def settle(version, at)
      version.update!(approved_at_meeting_id: at&.id, approved_by_id: at && by, approved_at: at && now)
    end

    def refuse_unless(fine, sentence)
      raise Core::Conflict.new(sentence, code: "state") unless fine
    end

    def note(meeting, words)
      Records::Event.note(
        "minutes", "#{Core::Words.day(meeting.original_wall.date)}: #{words}", series_id: meeting.series_id,
        meeting_id: meeting.id, now: now, person_id: by
      )
    end

    def mail(meeting, version, before)
      document = Views::MinutesFile.document(version.sheet, version: version)
      changes = before ? Views::MinutesFile.changes(before, version) : []
      url = "#{Settings.origin}/meetings/#{meeting.id}"
      mail = Mailing::Minutes.new(document, url: url, reason: version.reason, changes: changes)
      file = ["minutes.pdf", "application/pdf", Mailing::MinutesPdf.new(document).source]
      Records::Person.where(id: meeting.series.members.select(:person_id)).find_each do |person|
        Outbox.new(clock: @clock).put(
          reason: "minutes:#{meeting.id}:#{version.number}:#{person.id}", series_id: meeting.series_id, to: person,
          **mail.parts(person.id), reply_to: meeting.series.keeper.email, attachments: [file]
        )
      end
    end
  end
end

module UseCases
  # Somebody on the call who was not asked comes onto the sheet.
  class CallGuests < Base
    # @param visit [String] as the call has it
    # @param name [String]; email [String, nil] a guest without one is known by name alone
    def take(meeting_id:, visit:, name:, email: nil)
      write do
        meeting = find(Records::Meeting.includes(:series), meeting_id)
        Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
        reports = Records::CallReport.where(meeting_id: meeting_id, visit: visit)
        raise Core::NotFound if reports.empty?
        next if reports.where.not(person_id: nil).exists? # pressed twice

        person = guest(meeting, name, email)
        ask(meeting, person) unless asked?(meeting, person)
        reports.update_all(person_id: person.id)
        CallReports.new(clock: @clock).settle(meeting)
        Records::Change.note(meeting_id, now)
      end
    end

    private

    # They are here: nothing is to be told.
    def ask(meeting, person)
      made = Records::Substitute.create!(
        id: Records::Key.make(now), meeting_id: meeting.id, person_id: person.id, given_name: person.name
      )
      made.update!(told_digest: Loading::Substitutes.digest(made))
    end

    def guest(meeting, name, email)
      called = words(name, pointer: "/name", missing: "Give a name.").gsub(/[[:cntrl:]]/, " ")[0, 120]
      address = email.to_s.strip.empty? ? Core::MailAddress.none(Records::Key.make(now)) : Core::MailAddress.read!(email)
      Records::Person.find_by(email: address) || Records::Person.create!(
        id: Records::Key.make(now), name: called, email: address, time_zone: meeting.series.time_zone, guest: true
      )
    end

    def asked?(meeting, person)
      Records::SeriesMember.exists?(series_id: meeting.series_id, person_id: person.id) ||
        Records::Substitute.exists?(meeting_id: meeting.id, person_id: person.id)
    end
  end
end

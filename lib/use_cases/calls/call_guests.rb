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
        ask(meeting, person) unless meeting.asked?(person.id)
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
      guests, zone = Guests.new(by: by, clock: @clock), meeting.series.time_zone
      return guests.by_name(name: name, time_zone: zone) if email.to_s.strip.empty?

      guests.by_address(name: name, email: email, time_zone: zone)
    end
  end
end

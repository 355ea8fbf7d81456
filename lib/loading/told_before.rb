module Loading
  # What people of some series were told last, and who else waits to hear: read at once for all of them.
  class ToldBefore
    # @param series [Array<Records::Series>] with members and their people
    def initialize(series)
      @ids = series.map(&:id)
      @people = series.flat_map { |one| one.members.map(&:person) }.uniq
    end

    # @return [Hash{String => Records::Telling}] by person
    def tellings(series_id) = all.fetch(series_id, []).index_by(&:person_id)

    # The mail somebody was last told with.
    # @return [Records::Mail, nil]
    def last_mail(telling)
      @last_mails ||= Records::Mail.where(sending_id: all.values.flatten.map(&:sending_id).uniq)
        .where.not(kind: "reminder").select(:sending_id, :person_id, :kind, :role)
        .index_by { |mail| [mail.sending_id, mail.person_id] }
      @last_mails[[telling.sending_id, telling.person_id]]
    end

    # Whether it is a time somebody has booked.
    def booked?(series_id)
      @booked ||= Records::Booking.where(series_id: @ids).distinct.pluck(:series_id)
      @booked.include?(series_id)
    end

    private

    def all = @all ||= Records::Base.fill(
      Records::Telling.where(series_id: @ids), :person, :sending, known: @people
    ).group_by(&:series_id)
  end
end

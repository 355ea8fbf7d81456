require "digest"

module Loading
  # What whoever looks after a place is told of one preparation, and the private link by which they answer.
  class Preparation
    attr_reader :record

    # @param record [Records::Preparation] with meeting, series and place
    def initialize(record) = @record = record

    # @raise [Core::NotFound] when the link is worth nothing
    def self.of_link(id, token, now:)
      with_all = Records::Preparation.includes(meeting: {series: :keeper}, place: :looked_after_by)
      found = new(with_all.find_by(id: id) || raise(Core::NotFound))
      PrivateLink.check(found.token, token)
      PrivateLink.check_end(:preparation, found.meeting.ends_at, now)
      found
    end

    # Of whoever looks after the place now.
    def token = PrivateLink.token(:preparation, record.id, person_id: record.place.looked_after_by_id)

    def path = "/preparation/#{record.id}/#{token}"

    def meeting = record.meeting

    def series = meeting.series

    # Whether it is called off, or the meeting is elsewhere now.
    def off?
      record.state == "off" || meeting.state == "called_off" || !meeting.places_to_hold.include?(record.place_id)
    end

    # @return [Core::Interval] when the place is wanted, with what must be done before and after
    def span
      minutes = (record.place.prepares || []).select { |one| record.items.include?(one["name"]) }
      Core::Preparation.span(
        meeting.interval, series.before_min, series.after_min, minutes.map { |one| one["before_min"].to_i }
      )
    end

    def digest = Digest::SHA256.hexdigest(
      [series.title, record.place.name, *record.items, span.starts_at.to_i, span.ends_at.to_i, off?].join("|")
    )
  end
end

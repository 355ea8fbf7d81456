module Loading
  # The private link in an invitation, which belongs to one person and one series: its address, and what it opens.
  class AnswerLink
    # Whoever was taken off and comes back gets another: the old one may be with somebody else by now.
    # @param serial [Integer] how often it has been replaced
    # @param own [Integer, nil] how often the person has renewed all of theirs
    def self.token(series_id, person_id, serial = Records::LinkSerial.of(series_id, person_id), own = nil)
      PrivateLink.token(:answer, series_id, serial, person_id: person_id, serial: own)
    end

    def self.path(series_id, person_id, *serial)
      "/answer/#{series_id}/#{person_id}/#{token(series_id, person_id, *serial)}"
    end

    # Of one person to several series. @return [Hash{String => String}] path by series
    def self.paths(series_ids, person_id)
      serials = Records::LinkSerial.of_person(person_id, series_ids)
      own = Records::Person.where(id: person_id).pick(:link_serial)
      series_ids.to_h { |id| [id, path(id, person_id, serials.fetch(id, 0), own)] }
    end

    def self.address(series_id, person_id) = "#{Settings.origin}#{path(series_id, person_id)}"

    attr_reader :person, :series

    # @raise [Core::NotFound] when the link is not, or no more, worth anything
    def initialize(series_id:, person_id:, token:)
      PrivateLink.check(AnswerLink.token(series_id, person_id), token)
      raise Core::NotFound unless member?(series_id, person_id) || stands_in?(series_id, person_id)

      @person = Records::Person.find_by(id: person_id) || raise(Core::NotFound)
      @series = Records::Series.includes(:keeper, :held_place).find_by(id: series_id, merged_into_id: nil) ||
        raise(Core::NotFound)
    end

    # Who only stands in for somebody sees that meeting alone.
    # @return [ActiveRecord::Relation] of Records::Meeting
    def meetings
      all = Records::Meeting.where(series_id: series.id)
      return all if member?(series.id, person.id)

      all.where(id: Records::Substitute.where(person_id: person.id).select(:meeting_id))
    end

    private

    def member?(series_id, person_id) = Records::SeriesMember.exists?(series_id: series_id, person_id: person_id)

    def stands_in?(series_id, person_id) = Records::Substitute.of_series(series_id).exists?(person_id: person_id)
  end
end

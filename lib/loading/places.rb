module Loading
  # The places a wish names or describes.
  module Places
    module_function

    # @param wish [Hash, nil] place_id, or seats and equipment
    # @return [Array<Records::Place>] the smallest that do first; [] without a wish
    # @raise [Core::Invalid] when there is none
    def fitting(wish)
      return [] unless wish
      return [named(wish[:place_id])] if wish[:place_id]

      rooms = Records::Place.here.where(kind: "room").order(Arel.sql("seats is null, seats, name")).to_a
      found = rooms.select do |place|
        Core::PlaceFit.answers?(
          seats: place.seats, equipment: place.equipment, wanted_seats: wish[:seats],
          wanted_equipment: wish[:equipment] || []
        )
      end
      return found if found.any?

      raise Core::Invalid.new("No place here has that. Ask for fewer seats or less equipment.", pointer: "/place")
    end

    def named(id)
      Records::Place.here.find_by(id: id) ||
        raise(Core::Invalid.new("This place is not here any more.", pointer: "/place"))
    end
  end
end

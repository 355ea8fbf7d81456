# Somewhere to go in the demo for each route that needs to know where; of a page with several views, each of them.
class DemoPlaces
  VIEWS = %w[strands sheets agenda decisions answers people call history].freeze

  # @return [Hash{String => Array<String>}] addresses by route, as the routers write it
  def all = series.merge(others, links).transform_values { |one| Array(one) }

  def keeper = @keeper ||= Records::Person.find_by!(email: "marit@skerrybuoy.example")

  private

  def round = @round ||= Records::Series.find_by!(title: "Monday mooring round")

  def coming = @coming ||= round.meetings.coming(Clock.now).in_order.first.id

  def series = {
    "/series/:id" => VIEWS.map { |view| "/series/#{round.id}?show=#{view}" },
    "/series/:id/now" => "/series/#{round.id}/now",
    "/meetings/:id" => [coming, *round.meetings.where(state: %w[closed issued]).last(1).map(&:id)]
      .map { |id| "/meetings/#{id}" },
    "/meetings/:id/chair" => "/meetings/#{coming}/chair"
  }

  def others = {
    "/people" => %w[/people /people?show=groups /people?show=places],
    "/people/:id" => [keeper, Records::Person.where.not(id: keeper.id).first].map { |one| "/people/#{one.id}" },
    "/places/:id" => "/places/#{Records::Place.first.id}",
    "/asking/:id" => Records::TimePoll.first(3).map { |one| "/asking/#{one.id}" },
    "/open-hours/:id" => "/open-hours/#{hours.id}",
    "/open-hours/:id/edit" => "/open-hours/#{hours.id}/edit",
    "/search" => "/search?q=rope",
    "/sign-in/:token" => "/sign-in/#{"0" * 40}",
    "/:rest(.*)*" => "/nowhere"
  }

  def hours = @hours ||= Records::OpenHours.first

  # Of what the demo has nothing of there is a link that leads nowhere.
  def links = {
    "/answer/:id/:personId/:token" => Loading::AnswerLink.path(round.id, keeper.id),
    "/action/:id/:personId/:token" => of(Records::ActionOwner) { |one|
      Loading::ActionLink.path(one.action_item_id, one.person_id)
    },
    "/preparation/:id/:token" => of(Records::Preparation) { |one| Loading::Preparation.new(one).path },
    "/ask/:id/:personId/:token" => of(Records::PollPerson) { |one|
      Loading::PollLink.path(one.time_poll_id, one.person_id)
    },
    "/ask/:id/:token" => of(Records::TimePoll.where(shared: true)) { |one| Loading::PollLink.shared_path(one) },
    "/book/:id/:token" => Loading::OpenHoursLink.path(hours),
    "/booking/:id/:token" => of(Records::Booking) { |one| Loading::OpenHoursLink.booking_path(one) },
    "/with/:id/:token" => Loading::OpenHoursLink.host_path(keeper.id),
    "/pick/:id/:personId/:token" => of(Records::RowPicker) { |one|
      Loading::PickLink.path(one.meeting_id, one.person_id)
    }
  }

  def of(records) = records.first.then { |one| one ? yield(one) : "/booking/#{round.id}/#{"0" * 40}" }
end

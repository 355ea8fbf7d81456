require_relative "../api_helper"

# How long a text may be stands in the contract, from which forms and the server take it; columns hold at least that.
RSpec.describe "Limits of texts", :timeless do
  schemas = Api::Contract::DOCUMENT["components"]["schemas"]
  # What a request's texts are kept in. Phone numbers and names of files are left out: they are read, and kept shorter.
  {
    "NewPerson" => "people", "ChangedPerson" => "people", "NewSeries" => "series", "ChangedSeries" => "series",
    "NewSending" => "sendings", "Answer" => "answers", "NewLine" => "lines", "ChangedLine" => "lines",
    "NewTopic" => "topics", "ChangedTopic" => "topics", "ChangedAction" => "action_items",
    "NewActionState" => "action_items", "Review" => "action_reviews", "DayOff" => "days_off",
    "NewBusyEntry" => "busy_entries", "NewCalendar" => "calendars", "NewGroup" => "groups",
    "GroupWish" => "groups", "NewPlace" => "places", "PlaceWish" => "places", "ChangedMeeting" => "meetings",
    "NewHold" => "holds", "LinkAnswer" => "answers", "LinkOffer" => "offered_times",
    "OutsideAnswer" => "outside_meetings"
  }.each do |schema, table|
    it "of #{schema} are no longer than what #{table} hold", :aggregate_failures do
      columns = Records::Base.connection_pool.with_connection { |connection| connection.columns(table) }
      limits = columns.to_h { |column| [column.name, column.limit] }
      texts = schemas[schema]["properties"].select { |_, property| property["maxLength"] }
      texts.each do |name, property|
        limit = limits[Api::Json.snake({name => nil}).keys.first.to_s] or next
        expect(property["maxLength"]).to be <= limit, "#{schema}.#{name}"
      end
    end
  end

  it "stand at every text a request may hold" do
    requests = Api::Contract::DOCUMENT["components"]["requestBodies"].keys
    open = schemas.slice(*requests).flat_map do |schema, shape|
      free = (shape["properties"] || {}).select do |_, property|
        Array(property["type"]).include?("string") && !property.key?("maxLength") && !property.key?("enum") &&
          !property.key?("format") && !property.key?("pattern")
      end
      free.keys.map { |name| "#{schema}.#{name}" }
    end
    expect(open).to eq []
  end
end
